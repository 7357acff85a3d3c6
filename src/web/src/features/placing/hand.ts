import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { PocketView } from '../../api/client'

export interface PocketRef {
  leafId: string
  side: 'front' | 'back'
  pocketKey: string
}

export type InHand = { kind: 'photo'; photoId: string } | { kind: 'piece'; pieceId: string; from: PocketRef | null }

export const samePocket = (a: PocketRef | null, b: PocketRef | null) =>
  a !== null && b !== null && a.leafId === b.leafId && a.side === b.side && a.pocketKey === b.pocketKey

/** What the keeper holds and what lies open in the drawer; the screen's own, never the server's. */
export const useHand = defineStore('hand', () => {
  const held = ref<InHand | null>(null)
  const pocket = ref<PocketRef | null>(null)
  /** Pockets chosen together, in the order they were chosen. */
  const chosen = ref<PocketRef[]>([])
  const looseId = ref<string | null>(null)
  const framing = ref(false)
  /** A piece that goes with the one in the pocket, open in the drawer instead of it. */
  const attachedId = ref<string | null>(null)
  /** The loose photo or piece that is looked at: its best pockets are shown. */
  const looking = ref<string | null>(null)
  /** Flips that are lifted. */
  const lifted = ref<string[]>([])
  /** Where a dragged thing is on the screen. */
  const ghost = ref<{ x: number; y: number; picture: string | null; label: string } | null>(null)

  function openPocket(place: PocketRef | null) {
    if (!samePocket(place, pocket.value)) {
      framing.value = false
      attachedId.value = null
    }
    pocket.value = place
    looseId.value = null
  }

  /** Adds a pocket to those chosen together, or lets it go; the open one is chosen with the first. */
  function choose(place: PocketRef) {
    const before = chosen.value.length || !pocket.value ? chosen.value : [pocket.value]
    chosen.value = before.some((p) => samePocket(p, place))
      ? before.filter((p) => !samePocket(p, place))
      : [...before, place]
    pocket.value = place
    looseId.value = null
    framing.value = false
  }

  function openLoose(pieceId: string) {
    pocket.value = null
    framing.value = false
    looseId.value = pieceId
    attachedId.value = null
  }

  function lift(pieceId: string) {
    lifted.value = lifted.value.includes(pieceId)
      ? lifted.value.filter((id) => id !== pieceId)
      : [...lifted.value, pieceId]
  }

  function clear() {
    held.value = null
    pocket.value = null
    chosen.value = []
    looseId.value = null
    framing.value = false
    attachedId.value = null
    lifted.value = []
    ghost.value = null
    looking.value = null
  }

  return {
    held,
    pocket,
    chosen,
    looseId,
    framing,
    attachedId,
    looking,
    lifted,
    ghost,
    openPocket,
    choose,
    openLoose,
    lift,
    clear,
  }
})

/** What a piece looks like while it is dragged. */
export const ghostOf = (pocket: PocketView) =>
  pocket.piece?.photo ? `${pocket.piece.photo.picture}512` : (pocket.piece?.faceUrl ?? null)
