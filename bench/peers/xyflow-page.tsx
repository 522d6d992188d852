import { type Node, ReactFlow } from '@xyflow/react'
import { createRoot } from 'react-dom/client'
import '@xyflow/react/dist/style.css'

/** The peer of stage-pan-10k in its own page: the same boxes as its nodes, panned by the wheel and zoomed with Ctrl. */
const { nodes } = window as unknown as { nodes: Node[] }
createRoot(document.getElementById('root')!).render(
  <div data-stage style={{ width: '100vw', height: '100vh' }}>
    <ReactFlow
      defaultNodes={nodes}
      defaultEdges={[]}
      onlyRenderVisibleElements
      minZoom={0.02}
      maxZoom={4}
      panOnScroll
      defaultViewport={{ x: 640, y: 400, zoom: 0.7 }}
    />
  </div>,
)
