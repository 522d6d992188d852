import { Button, useComputedColorScheme } from '@mantine/core'
import { BarChart, LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent } from 'echarts/components'
import { type EChartsType, init, use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useEffect, useRef, useState } from 'react'
import { type ChartChoice, numberIn, type TableFile, timeIn } from '../../core/formats/table-file'
import { tonesOf } from '../../core/look/families'
import { FONT_FAMILIES, inScheme, PALETTE } from '../../core/look/palette'
import { sendPicture } from '../pictures/send-picture'
import { useSession } from '../sync/use-session'
import { tellHappened } from '../workspace/happened'
import { useWorkspace } from '../workspace/workspace-store'
import styles from './reading.module.css'

use([LineChart, BarChart, GridComponent, LegendComponent, CanvasRenderer])

interface Props {
  table: TableFile
  choice: ChartChoice
  name: string
}

/** Columns of numbers, drawn: as lines along days or numbers, as bars along words. */
export default function TableChart({ table, choice, name }: Props) {
  const scheme = useComputedColorScheme('light')
  const frame = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  useEffect(() => {
    const made = init(frame.current)
    chart.current = made
    const observer = new ResizeObserver(() => made.resize())
    observer.observe(frame.current!)
    return () => {
      observer.disconnect()
      made.dispose()
    }
  }, [])
  useEffect(() => chart.current?.setOption(optionsFor(table, choice, scheme), true), [table, choice, scheme])
  const drawn = choice.drawn.map((at) => table.columns[at]?.name).join(', ')
  return (
    <>
      <div ref={frame} className={styles.chart} role="img" aria-label={`Chart of ${drawn}`} />
      <PutOnTopic
        name={name}
        picture={() => chart.current!.getDataURL({ pixelRatio: 2, backgroundColor: inScheme(PALETTE.paper, scheme) })}
      />
    </>
  )
}

function optionsFor({ columns, rows }: TableFile, { along, drawn }: ChartChoice, scheme: 'light' | 'dark') {
  const kind = columns[along]?.kind ?? 'text'
  const isLine = kind !== 'text'
  const place = kind === 'date' ? timeIn : numberIn
  const [ink, line, paper] = [PALETTE['quiet-ink'], PALETTE.line, PALETTE.ink].map((pair) => inScheme(pair, scheme))
  const axis = {
    axisLabel: { color: ink, fontSize: 12 },
    axisLine: { lineStyle: { color: line } },
    splitLine: { lineStyle: { color: line } },
    nameTextStyle: { color: ink },
  }
  const cells = isLine
    ? rows.filter((row) => row[along] !== '').sort((a, b) => place(a[along]!)! - place(b[along]!)!)
    : rows
  return {
    animation: false,
    textStyle: { fontFamily: FONT_FAMILIES.interface },
    color: tonesOf('spruce').map((tones) => inScheme(tones.line, scheme)),
    legend: { top: 8, textStyle: { color: paper }, type: 'scroll' },
    grid: { left: 12, right: 24, top: 48, bottom: 12, containLabel: true },
    xAxis: isLine
      ? { ...axis, type: kind === 'date' ? 'time' : 'value', scale: true }
      : { ...axis, type: 'category', data: rows.map((row) => row[along]) },
    yAxis: { ...axis, type: 'value', scale: true },
    series: drawn.map((at) => ({
      type: isLine ? 'line' : 'bar',
      name: columns[at]?.name,
      showSymbol: cells.length < 60,
      data: cells.map((row) => {
        const value = numberIn(row[at]!)
        return isLine ? [place(row[along]!), value] : value
      }),
    })),
  }
}

/** Puts the chart onto the selected topic, as its picture. */
function PutOnTopic({ name, picture }: { name: string; picture(): string }) {
  const session = useSession()
  const { panes, active } = useWorkspace()
  const [isSending, setSending] = useState(false)
  const topic = session.records.get('topic', panes[active]?.selected.at(-1) ?? null)
  if (!session.mayEdit) return null
  const send = async () => {
    if (!topic) return
    setSending(true)
    const bytes = Uint8Array.from(atob(picture().split(',')[1]!), (sign) => sign.charCodeAt(0))
    const file = new File([bytes], `${name.replace(/\.[^.]+$/, '')}-chart.png`, { type: 'image/png' })
    await sendPicture(session, topic.id, file)
    setSending(false)
    tellHappened(`The chart is the picture of ${topic.text.slice(0, 60) || 'Untitled'}`, [
      { name: 'Undo', go: () => void session.takeBack('undo') },
    ])
  }
  return (
    <Button
      variant="default"
      size="xs"
      m="md"
      loading={isSending}
      disabled={!topic}
      title={topic ? undefined : 'Select a topic on the map first'}
      onClick={() => void send()}
    >
      Put the chart on {topic ? topic.text.slice(0, 40) || 'the topic' : 'a topic'}
    </Button>
  )
}
