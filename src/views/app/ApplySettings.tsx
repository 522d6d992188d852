import { useMantineColorScheme } from '@mantine/core'
import { useEffect } from 'react'
import { tellTrouble } from './api'
import { usePerson } from './person'
import { applySettings, fetchSettings, flushSettings, settingsNow, usePersonalSettings } from './personal'

/** Has the screen follow what whoever is here has set for themselves. */
export function ApplySettings() {
  const person = usePerson()
  const scheme = usePersonalSettings((settings) => settings.scheme)
  const { setColorScheme } = useMantineColorScheme()
  useEffect(() => setColorScheme(scheme), [scheme, setColorScheme])
  useEffect(() => applySettings(settingsNow()), [])
  const id = person?.id
  useEffect(() => {
    if (id) fetchSettings().catch(tellTrouble)
  }, [id])
  useEffect(() => {
    window.addEventListener('pagehide', flushSettings)
    return () => window.removeEventListener('pagehide', flushSettings)
  }, [])
  return null
}
