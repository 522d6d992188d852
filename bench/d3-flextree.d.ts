declare module 'd3-flextree' {
  interface FlextreeNode<Datum> {
    data: Datum
  }
  interface Flextree<Datum> {
    (tree: FlextreeNode<Datum>): FlextreeNode<Datum>
    hierarchy(data: Datum): FlextreeNode<Datum>
  }
  export function flextree<Datum>(options: {
    nodeSize(node: FlextreeNode<Datum>): [number, number]
    spacing: number
  }): Flextree<Datum>
}
