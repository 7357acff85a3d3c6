<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import type { FaceView, PocketOffer, PocketView } from '../../api/client'
import AttachedFaces from './AttachedFaces.vue'
import { usePieceDrag } from './drag'
import FramedPhoto from './FramedPhoto.vue'
import type { Framing } from './frame'
import { ghostOf, samePocket, useHand, type InHand, type PocketRef } from './hand'
import { neighbour, type Direction } from './neighbour'

const props = defineProps<{ faces: FaceView[]; trueSize: boolean; offers: PocketOffer[] }>()
const emit = defineEmits<{
  put: [held: InHand, place: PocketRef]
  takeOut: [place: PocketRef]
  lock: [place: PocketRef, locked: boolean]
  frame: [pieceId: string, framing: Framing]
}>()

const hand = useHand()
const mat = ref<HTMLElement>()
const { width: roomWidth, height: roomHeight } = useElementSize(mat, { width: 800, height: 500 })

const emuPerInch = 914_400
/** A CSS inch is 96 CSS pixels; true size is as true as the screen tells the browser. */
const cssInch = 96
const gutter = 18

const scale = computed(() => {
  if (props.trueSize) return cssInch / emuPerInch
  const width = props.faces.reduce((sum, f) => sum + f.width, 0)
  const height = Math.max(1, ...props.faces.map((f) => f.height))
  return Math.min((roomWidth.value - gutter - 32) / width, (roomHeight.value - 28) / height)
})
const px = (emu: number) => `${emu * scale.value}px`
const grid = computed(() => `${(emuPerInch / 2) * scale.value}px`)

const placeOf = (face: FaceView, pocket: PocketView): PocketRef => ({
  leafId: face.leafId,
  side: face.side,
  pocketKey: pocket.key,
})

const laid = computed(() => {
  // Left to right as the album lies open: a back is a left page.
  let x = 0
  return props.faces.map((face) => {
    const at = x
    x += face.width
    return { face, x: at }
  })
})

const all = computed(() =>
  laid.value.flatMap(({ face, x }) =>
    face.pockets.map((pocket) => ({
      face,
      pocket,
      place: placeOf(face, pocket),
      box: { x: x + pocket.x, y: pocket.y, width: pocket.width, height: pocket.height },
    })),
  ),
)

/** The three best pockets for the loose thing that is looked at glow, the best most. */
const offerFor = (pocket: PocketView) => props.offers.find((o) => o.code === pocket.code && o.rank <= 3)

const isOpen = (face: FaceView, pocket: PocketView) => samePocket(hand.pocket, placeOf(face, pocket))
const tabbable = (face: FaceView, pocket: PocketView) =>
  hand.pocket ? isOpen(face, pocket) : all.value[0]?.pocket === pocket

const nameOfFace = (face: FaceView) =>
  `${face.side === 'back' ? 'Left' : 'Right'} page: ${face.designName}. ` +
  `Its other side is ${face.otherSide}.${face.note ? ` ${face.note}` : ''}`

function nameOfPiece({ piece, locked, stuck }: PocketView) {
  if (!piece) return ''
  const slice = piece.span ? `, part ${piece.span.number} of ${piece.span.of}` : ''
  const warning = piece.warning ? `, warning: ${piece.warning}` : ''
  const held = `${locked ? ', locked' : ''}${stuck ? ', stuck to the piece behind it' : ''}`
  const others = (piece.attached ?? []).map(
    (p) => `, ${p.attachment!.kind === 'stuckOn' ? 'label' : p.attachment!.kind} ${p.title}`,
  )
  return `${piece.kind} ${piece.title}${slice}${others.join('')}${warning}${held}`
}

/** Shown as its picture alone, which can be moved in the pocket; with words or a finish it is shown as it prints. */
function framedHere(face: FaceView, pocket: PocketView) {
  const { piece } = pocket
  if (piece?.kind !== 'photo' || piece.finish || piece.legendLine || piece.isPart) return false
  return (!piece.caption && !piece.adjustment) || (hand.framing && isOpen(face, pocket))
}

function name(pocket: PocketView) {
  const what = nameOfPiece(pocket) || (pocket.leftEmpty ? 'left empty on purpose' : 'empty')
  return `Pocket ${pocket.code}, ${pocket.size}: ${what}${pocket.behind ? `; behind it ${pocket.behind}` : ''}`
}
const nameHere = (face: FaceView, pocket: PocketView) =>
  `${name(pocket)}${isChosen(face, pocket) ? ', chosen with others' : ''}`

const isChosen = (face: FaceView, pocket: PocketView) => hand.chosen.some((p) => samePocket(p, placeOf(face, pocket)))

function onClick(face: FaceView, pocket: PocketView, event?: MouseEvent) {
  const place = placeOf(face, pocket)
  if (event?.ctrlKey || event?.metaKey) {
    hand.choose(place)
    return
  }
  hand.chosen = []
  const held = hand.held
  hand.openPocket(place)
  if (held) {
    hand.held = null
    emit('put', held, place)
  }
}

function pickUp(face: FaceView, pocket: PocketView) {
  if (pocket.piece) hand.held = { kind: 'piece', pieceId: pocket.piece.id, from: placeOf(face, pocket) }
}

async function focusPocket(place: PocketRef) {
  hand.openPocket(place)
  await nextTick()
  mat.value
    ?.querySelector<HTMLElement>(
      `[data-leaf="${place.leafId}"][data-side="${place.side}"][data-pocket="${place.pocketKey}"]`,
    )
    ?.focus()
}

const arrows = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown']

function onKey(event: KeyboardEvent, face: FaceView, pocket: PocketView) {
  const place = placeOf(face, pocket)
  if (event.key === 'Enter' && event.ctrlKey) {
    event.preventDefault()
    hand.choose(place)
    return
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (arrows.includes(event.key)) {
    event.preventDefault()
    const direction = event.key as Direction
    if (event.shiftKey && pocket.piece?.crop && pocket.piece.framing) {
      // Shift and an arrow moves the picture inside its pocket by a twentieth.
      const step = { ArrowLeft: [1, 0], ArrowRight: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[direction] as [
        number,
        number,
      ]
      const { framing, crop } = pocket.piece
      emit('frame', pocket.piece.id, {
        zoom: framing.zoom,
        centerX: crop.left + crop.width / 2 + (step[0] * crop.width) / 20,
        centerY: crop.top + crop.height / 2 + (step[1] * crop.height) / 20,
      })
      return
    }
    const from = all.value.findIndex((p) => samePocket(p.place, place))
    const to = neighbour(
      all.value.map((p) => p.box),
      from,
      direction,
    )
    const next = all.value[to]
    if (next) void focusPocket(next.place)
    return
  }
  if (event.key === 'Enter') {
    event.preventDefault()
    if (hand.held) onClick(face, pocket)
    else {
      hand.openPocket(place)
      pickUp(face, pocket)
    }
  } else if ((event.key === 'Delete' || event.key === 'Backspace') && pocket.piece) {
    event.preventDefault()
    emit('takeOut', place)
  } else if (
    (event.key === '+' || event.key === '=' || event.key === '-') &&
    pocket.piece?.crop &&
    pocket.piece.framing
  ) {
    event.preventDefault()
    const { framing, crop } = pocket.piece
    emit('frame', pocket.piece.id, {
      zoom: framing.zoom * (event.key === '-' ? 1 / 1.1 : 1.1),
      centerX: crop.left + crop.width / 2,
      centerY: crop.top + crop.height / 2,
    })
  } else if (event.key.toLowerCase() === 'l' && pocket.piece) {
    event.preventDefault()
    emit('lock', place, !pocket.locked)
  } else if (event.key === 'Escape') {
    // First let go of those chosen together, then of what is held, then of the pocket.
    if (hand.chosen.length) hand.chosen = []
    else if (hand.held || hand.framing) {
      hand.held = null
      hand.framing = false
    } else {
      hand.openPocket(null)
    }
  }
}

// ---- dragging with the pointer, from a pocket to another one or to the tray ------------------------------
const drag = usePieceDrag(drop)

function onDown(event: PointerEvent, face: FaceView, pocket: PocketView) {
  if (!pocket.piece || (hand.framing && isOpen(face, pocket))) return
  const held: InHand = { kind: 'piece', pieceId: pocket.piece.id, from: placeOf(face, pocket) }
  drag.start(event, held, ghostOf(pocket), pocket.piece.title)
}

/** Lets go of a dragged thing over the screen; also used by the tray. */
function drop(held: InHand, x: number, y: number) {
  const under = document.elementFromPoint(x, y)
  const target = under?.closest<HTMLElement>('[data-pocket]')
  if (target?.dataset.leaf && target.dataset.pocket) {
    const place: PocketRef = {
      leafId: target.dataset.leaf,
      side: target.dataset.side as 'front' | 'back',
      pocketKey: target.dataset.pocket,
    }
    hand.openPocket(place)
    emit('put', held, place)
  } else if (under?.closest('[data-tray]') && held.kind === 'piece' && held.from) {
    emit('takeOut', held.from)
  }
}

defineExpose({ drop, focusFirst: () => all.value[0] && focusPocket(all.value[0].place) })
</script>

<template>
  <div
    ref="mat"
    class="mat"
    data-bs-theme="light"
    :class="{ 'true-size': trueSize }"
    :style="{ '--grid': grid }"
    @click.self="hand.openPocket(null)"
  >
    <div class="spread" :style="{ gap: `${gutter}px` }">
      <section
        v-for="{ face } in laid"
        :key="face.leafId + face.side"
        class="page"
        :style="{ width: px(face.width), height: px(face.height) }"
        :aria-label="nameOfFace(face)"
      >
        <span
          class="ring-strip"
          :style="{ left: px(face.ringStripX), width: px(face.ringStripWidth) }"
          aria-hidden="true"
        >
          <template v-if="face.holes.length === 0"><i></i><i></i><i></i></template>
        </span>
        <svg
          class="marks"
          :viewBox="`0 0 ${face.width} ${face.height}`"
          :class="{ sheet: face.kind !== 'pockets' }"
          aria-hidden="true"
        >
          <circle v-for="(h, i) in face.holes" :key="i" :cx="h.x" :cy="h.y" :r="face.holeWidth / 2" class="hole" />
          <line
            v-for="(m, i) in face.marks"
            :key="`m${i}`"
            :x1="m.x1"
            :y1="m.y1"
            :x2="m.x2"
            :y2="m.y2"
            :class="m.kind"
          />
        </svg>
        <span v-if="face.tab" class="tab-words" :class="face.side">{{ face.tab }}</span>
        <span v-if="face.pockets.length === 0" class="no-pockets">{{ face.designName }}</span>
        <div
          v-for="pocket in face.pockets"
          :key="pocket.key"
          role="button"
          class="pocket"
          :class="{
            filled: pocket.piece,
            offered: offerFor(pocket),
            best: offerFor(pocket)?.rank === 1,
            'left-empty': pocket.leftEmpty,
            span: pocket.piece?.span,
            open: isOpen(face, pocket),
            chosen: isChosen(face, pocket),
            target: hand.held && !isOpen(face, pocket),
            lifted: hand.held?.kind === 'piece' && hand.held.pieceId === pocket.piece?.id,
            framing: hand.framing && isOpen(face, pocket),
          }"
          :style="{ left: px(pocket.x), top: px(pocket.y), width: px(pocket.width), height: px(pocket.height) }"
          :tabindex="tabbable(face, pocket) ? 0 : -1"
          :aria-label="nameHere(face, pocket)"
          :aria-pressed="isOpen(face, pocket)"
          :data-leaf="face.leafId"
          :data-side="face.side"
          :data-pocket="pocket.key"
          :data-code="pocket.code"
          @click="onClick(face, pocket, $event)"
          @dblclick="hand.framing = pocket.piece?.kind === 'photo'"
          @keydown="onKey($event, face, pocket)"
          @pointerdown="onDown($event, face, pocket)"
        >
          <img
            v-if="pocket.behindFace"
            class="card-face from-behind"
            :src="pocket.behindFace"
            alt=""
            draggable="false"
          />
          <FramedPhoto
            v-if="pocket.piece && framedHere(face, pocket)"
            :piece="pocket.piece"
            :side="pocket.width * scale > 380 ? 1600 : 512"
            :interactive="hand.framing && isOpen(face, pocket) && !pocket.piece.span"
            @frame="emit('frame', pocket.piece.id, $event)"
          />
          <img
            v-else-if="pocket.piece?.faceUrl"
            class="card-face"
            :src="pocket.piece.faceUrl"
            alt=""
            draggable="false"
          />
          <span v-else class="pocket-size" aria-hidden="true">{{ pocket.leftEmpty ? 'left empty' : pocket.size }}</span>
          <span v-if="offerFor(pocket)" class="offer" aria-hidden="true">{{ offerFor(pocket)!.words }}</span>
          <span v-if="pocket.stuck" class="pocket-stuck" aria-hidden="true" title="Stuck to the piece behind it"
            >⇄</span
          >
          <span v-if="pocket.piece?.warning" class="pocket-warning" aria-hidden="true">!</span>
          <span v-if="pocket.locked" class="pocket-lock" aria-hidden="true" title="Locked">●</span>
        </div>
        <div
          v-for="pocket in face.pockets.filter((p) => p.piece?.attached?.length)"
          :key="`${pocket.key} attached`"
          class="over"
          :style="{ left: px(pocket.x), top: px(pocket.y), width: px(pocket.width), height: px(pocket.height) }"
        >
          <AttachedFaces :piece="pocket.piece!" />
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.mat {
  position: relative;
  flex: 1;
  min-height: 0;
  overflow: hidden;
  display: flex;
  align-items: center;
  justify-content: center;
  background-color: var(--mat);
  background-image:
    linear-gradient(var(--mat-line) 1px, transparent 1px), linear-gradient(90deg, var(--mat-line) 1px, transparent 1px);
  background-size: var(--grid) var(--grid);
  background-position: center center;
}
.mat.true-size {
  overflow: auto;
  display: block;
  padding: 14px;
}
.true-size .spread {
  width: max-content;
  margin: 0 auto;
}
.spread {
  display: flex;
  align-items: center;
  justify-content: center;
}
.page {
  position: relative;
  flex: none;
  background: rgb(255 255 255 / 0.42);
  border-radius: 4px;
  box-shadow:
    0 3px 10px rgb(0 0 0 / 0.3),
    inset 0 0 0 1px rgb(255 255 255 / 0.6);
}
.ring-strip {
  position: absolute;
  top: 0;
  bottom: 0;
  display: flex;
  flex-direction: column;
  justify-content: space-around;
  align-items: center;
  background: rgb(255 255 255 / 0.25);
}
.ring-strip i {
  width: 42%;
  aspect-ratio: 1;
  border-radius: 50%;
  background: var(--mat-dark);
}
.pocket {
  position: absolute;
  padding: 0;
  border: 1px solid rgb(40 55 65 / 0.55);
  background: rgb(247 250 252 / 0.55);
  overflow: hidden;
  cursor: pointer;
  touch-action: none;
}
.pocket.filled:not(:has(.card-face)) {
  background: #fff;
}
.pocket.target:hover {
  outline: 3px dashed var(--zest-bright);
  outline-offset: -3px;
}
.pocket.offered {
  box-shadow: inset 0 0 0 3px var(--zest-bright);
}
.pocket.best {
  box-shadow:
    inset 0 0 0 4px var(--zest-bright),
    0 0 12px 4px var(--zest-bright);
  z-index: 1;
}
.offer {
  position: absolute;
  inset: auto 0 0 0;
  padding: 1px 4px;
  background: rgb(255 255 255 / 0.92);
  color: #2b2118;
  font-size: 0.75rem;
  text-align: center;
}
.pocket.chosen {
  outline: 3px dashed var(--zest-bright);
  outline-offset: 0;
  z-index: 1;
}
.pocket.open {
  outline: 3px solid var(--zest-bright);
  outline-offset: 0;
  z-index: 2;
}
.pocket:focus-visible {
  outline: 3px solid #fff !important;
  outline-offset: 0 !important;
  box-shadow: 0 0 0 6px var(--zest) !important;
  z-index: 3;
}
.pocket.lifted {
  opacity: 0.55;
}
.pocket.framing {
  outline-style: dashed;
}
.over {
  position: absolute;
  pointer-events: none;
  z-index: 2;
}
.card-face {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.from-behind {
  transform: scaleX(-1);
}
.pocket-size {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  color: #22313a;
  font-size: 0.8rem;
}
.pocket-warning {
  position: absolute;
  right: 3px;
  top: 3px;
  width: 1.35em;
  height: 1.35em;
  line-height: 1.3em;
  border-radius: 50%;
  background: var(--warn);
  color: #fff;
  font-weight: 700;
  text-align: center;
  border: 1px solid #fff;
}
.marks {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  z-index: 1;
}
.marks .hole {
  fill: var(--mat-dark);
}
.marks line {
  stroke: #fff3e4;
  stroke-width: 26000;
  stroke-dasharray: 140000 90000;
}
.marks line.seam {
  stroke: #fff;
}
.tab-words {
  position: absolute;
  top: 12%;
  padding: 0.1rem 0.5rem;
  background: var(--tape);
  color: var(--ink);
  font-size: 0.75rem;
  font-weight: 600;
  writing-mode: vertical-rl;
}
.tab-words.front {
  left: 100%;
  border-radius: 0 0.4rem 0.4rem 0;
}
.tab-words.back {
  right: 100%;
  border-radius: 0.4rem 0 0 0.4rem;
}
.no-pockets {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  color: #fff;
  font-weight: 600;
  text-shadow: 0 1px 3px rgb(0 0 0 / 0.6);
}
.pocket.left-empty {
  border-style: dashed;
  background: none;
}
.pocket.left-empty .pocket-size {
  color: #fff;
}
.pocket-stuck {
  position: absolute;
  right: 4px;
  bottom: 2px;
  padding: 0 0.25em;
  border-radius: 0.3em;
  background: var(--tape);
  color: var(--ink);
  font-size: 0.75rem;
}
.pocket-lock {
  position: absolute;
  left: 4px;
  bottom: 0;
  color: var(--ink);
  text-shadow: 0 0 3px #fff;
  font-size: 0.55rem;
}
</style>
