import type { PieceView, WrittenFinish } from '../../api/client'

export type Shape = NonNullable<WrittenFinish['shape']>
export type Edge = NonNullable<WrittenFinish['stripEdge']>

/** The shapes a piece can be cut to, as people name them. */
export const shapes: { shape: Shape; name: string }[] = [
  { shape: 'rectangle', name: 'Rectangle' },
  { shape: 'circle', name: 'Circle' },
  { shape: 'halfCircleHanging', name: 'Half circle at the top' },
  { shape: 'halfCircleStanding', name: 'Half circle at the bottom' },
  { shape: 'arch', name: 'Arch' },
  { shape: 'tag', name: 'Tag' },
]

export const edges: { edge: Edge; name: string }[] = [
  { edge: 'left', name: 'on the left edge' },
  { edge: 'right', name: 'on the right edge' },
  { edge: 'top', name: 'on the top edge' },
  { edge: 'bottom', name: 'on the bottom edge' },
]

/** A piece without a border, mats or strip. */
export const plain = (): WrittenFinish => ({
  shape: 'rectangle',
  corner: null,
  border: null,
  borderColour: null,
  mats: [],
  stripEdge: null,
  stripWidth: null,
  stripStyleKey: null,
})

export type StepKind = NonNullable<PieceView['steps']>[number]['kind']

/** What is done to a printed piece by hand. */
export const stepKinds: Record<StepKind, string> = {
  stamp: 'Stamp',
  write: 'Write by hand',
  stitch: 'Stitch',
  staple: 'Staple',
  emboss: 'Emboss with heat',
  stickOn: 'Stick on',
  cutByHand: 'Cut by hand',
  punchHole: 'Punch a hole',
}
