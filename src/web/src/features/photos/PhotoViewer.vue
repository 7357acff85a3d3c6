<script setup lang="ts">
import { counted } from '../../shared/words'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import type { BoxView, PhotoEdit, PhotoView } from '../../api/client'
import { singleKeys } from '../../shared/shortcuts'
import { usePhoto } from './queries'
import BoxLayer from './BoxLayer.vue'
import { cullKeys, usePhotoEdits, verdictWords } from './edits'
import PhotoFacts from './PhotoFacts.vue'

const props = defineProps<{ albumId: string; photos: PhotoView[]; start: string }>()
const emit = defineEmits<{ close: [lastId: string] }>()

type Mode = 'look' | 'focus' | 'keep' | 'cover'
const edit = usePhotoEdits(() => props.albumId)
const dialog = ref<HTMLElement>()
// The list as it was opened: what is left out on the way stays in it, so that a verdict can be changed at once.
const order = ref(props.photos.map((p) => p.id))
const latest = ref(new Map(props.photos.map((p) => [p.id, p])))
const at = ref(
  Math.max(
    0,
    props.photos.findIndex((p) => p.id === props.start),
  ),
)
const zoom = ref(1)
const pan = ref({ x: 0, y: 0 })
const mode = ref<Mode>('look')
const beside = ref<string | null>(null)
const busy = ref(false)

const photo = computed(() => latest.value.get(order.value[at.value]!)!)
const other = computed(() => (beside.value ? latest.value.get(beside.value) : undefined))
const { data: detail } = usePhoto(() => photo.value?.id ?? '')

watch(
  () => props.photos,
  (photos) => {
    for (const p of photos) {
      const known = latest.value.get(p.id)
      if (!known || known.revision <= p.revision) latest.value.set(p.id, p)
      if (!known) order.value.push(p.id)
    }
  },
)
watch(at, () => {
  pan.value = { x: 0, y: 0 }
  if (!beside.value) zoom.value = 1
})

// A button that was pressed may go with its mode; the keys must not go with it.
watch([mode, beside, at], async () => {
  await nextTick()
  if (!dialog.value?.contains(document.activeElement)) dialog.value?.focus()
})

function go(step: number) {
  const to = at.value + step
  if (to >= 0 && to < order.value.length) at.value = to
}

async function change(what: PhotoEdit, target = photo.value) {
  if (busy.value) return false
  busy.value = true
  try {
    const answer = await edit([target], what)
    for (const p of answer?.photos ?? []) latest.value.set(p.id, p)
    return answer !== undefined
  } finally {
    busy.value = false
  }
}

/** A verdict goes on to the next picture; stars do not. */
async function decide(what: PhotoEdit) {
  if ((await change(what)) && what.kind === 'judgePhoto' && !beside.value) go(1)
}

const setBoxes = (boxes: BoxView[]) => change({ kind: mode.value === 'keep' ? 'keepInCrops' : 'coverPhoto', boxes })
const boxes = computed(() => (mode.value === 'keep' ? detail.value?.keepBoxes : detail.value?.coverBoxes) ?? [])
const addBox = () => setBoxes([...boxes.value, { x: 0.35, y: 0.35, width: 0.3, height: 0.3 }])

function setFocus(event: MouseEvent) {
  if (mode.value !== 'focus') return
  const rect = (event.currentTarget as HTMLElement).getBoundingClientRect()
  void change({
    kind: 'moveFocus',
    x: (event.clientX - rect.left) / rect.width,
    y: (event.clientY - rect.top) / rect.height,
  })
}

function nudgeFocus(dx: number, dy: number) {
  const clamp = (v: number) => Math.min(1, Math.max(0, v))
  void change({ kind: 'moveFocus', x: clamp(photo.value.focusX + dx), y: clamp(photo.value.focusY + dy) })
}

function compare() {
  if (beside.value) {
    beside.value = null
    return
  }
  const alike = detail.value?.lookalikes.find((p) => p.id !== photo.value.id)
  if (alike && !latest.value.has(alike.id)) latest.value.set(alike.id, alike)
  beside.value = alike?.id ?? order.value[at.value + 1] ?? order.value[at.value - 1] ?? null
}

/** Of the two side by side one is kept and the other left out. */
async function choose(kept: PhotoView, left: PhotoView) {
  await change({ kind: 'judgePhoto', verdict: 'keep' }, kept)
  await change({ kind: 'judgePhoto', verdict: 'leave' }, left)
  beside.value = null
}

const setZoom = (value: number) => {
  zoom.value = Math.min(8, Math.max(1, value))
  if (zoom.value === 1) pan.value = { x: 0, y: 0 }
}

let drag: { x: number; y: number } | null = null
function onDown(event: PointerEvent) {
  if (mode.value !== 'look' || zoom.value === 1 || event.button !== 0) return
  drag = { x: event.clientX - pan.value.x, y: event.clientY - pan.value.y }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
const onMove = (event: PointerEvent) => {
  if (drag) pan.value = { x: event.clientX - drag.x, y: event.clientY - drag.y }
}
const onUp = () => (drag = null)

// On the window: a message that was answered takes the focus with it when it goes.
useEventListener(window, 'keydown', onKey)

function onKey(event: KeyboardEvent) {
  if (document.querySelectorAll('.modal.show').length > 1) return
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const target = event.target as HTMLElement
  if (/^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return
  const arrows: Record<string, [number, number]> = {
    ArrowLeft: [-0.02, 0],
    ArrowRight: [0.02, 0],
    ArrowUp: [0, -0.02],
    ArrowDown: [0, 0.02],
  }
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  const run = (action: () => unknown) => {
    event.preventDefault()
    event.stopPropagation()
    void action()
  }
  if (key === 'Escape') {
    run(() => (mode.value !== 'look' ? (mode.value = 'look') : beside.value ? (beside.value = null) : close()))
  } else if (mode.value === 'focus' && arrows[key]) {
    run(() => nudgeFocus(...arrows[key]!))
  } else if (mode.value === 'look' && (key === 'ArrowLeft' || key === 'ArrowRight')) {
    run(() => go(key === 'ArrowLeft' ? -1 : 1))
  } else if (singleKeys.value) {
    const verdict = cullKeys[key]
    if (verdict) run(() => decide(verdict))
    else if (key === '+' || key === '=') run(() => setZoom(zoom.value * 1.5))
    else if (key === '-') run(() => setZoom(zoom.value / 1.5))
    else if (key === 'c') run(compare)
    else if (key === 'f') run(() => (mode.value = mode.value === 'focus' ? 'look' : 'focus'))
    else if (key === 'p') run(() => (mode.value = mode.value === 'keep' ? 'look' : 'keep'))
    else if (key === 'v') run(() => (mode.value = mode.value === 'cover' ? 'look' : 'cover'))
  }
}

const close = () => emit('close', photo.value.id)

// The keys work at once; afterwards the focus goes back to where it was.
const before = document.activeElement as HTMLElement | null
watch(dialog, (shown) => shown?.focus(), { flush: 'post' })
onBeforeUnmount(() => before?.focus())
</script>

<template>
  <BModal
    :model-value="true"
    fullscreen
    no-header
    no-footer
    no-fade
    no-close-on-esc
    no-close-on-backdrop
    :focus="false"
    :title="`Photo ${photo.fileName}`"
    :aria-label="`Photo ${photo.fileName}`"
    body-class="p-0"
  >
    <div ref="dialog" class="viewer" tabindex="-1" data-testid="viewer">
      <div class="bar">
        <strong class="text-truncate">{{ photo.fileName }}</strong>
        <span class="bar-soft">{{ photo.dayLabel ?? 'no date' }} {{ photo.time }}</span>
        <span class="bar-soft" data-testid="viewer-position">{{ at + 1 }} of {{ order.length }}</span>
        <span class="ms-auto"></span>
        <button type="button" class="tool" :disabled="at === 0" aria-label="Picture before" @click="go(-1)">‹</button>
        <button type="button" class="tool" :disabled="at === order.length - 1" aria-label="Next picture" @click="go(1)">
          ›
        </button>
        <button type="button" class="tool" aria-label="Zoom out" @click="setZoom(zoom / 1.5)">−</button>
        <span class="bar-soft zoom">{{ Math.round(zoom * 100) }} %</span>
        <button type="button" class="tool" aria-label="Zoom in" @click="setZoom(zoom * 1.5)">+</button>
        <button type="button" class="tool" :aria-pressed="beside !== null" @click="compare">Compare</button>
        <button type="button" class="tool" @click="close">Close</button>
      </div>

      <div class="stage" :class="{ two: other }">
        <figure v-for="p in other ? [photo, other] : [photo]" :key="p.id" class="frame" :data-frame="p.id">
          <div
            class="canvas"
            @pointerdown="onDown"
            @pointermove="onMove"
            @pointerup="onUp"
            @pointercancel="onUp"
            @wheel.prevent="setZoom(zoom * ($event.deltaY < 0 ? 1.2 : 1 / 1.2))"
          >
            <div
              class="picture"
              :class="mode"
              :style="{
                aspectRatio: `${p.width} / ${p.height}`,
                '--w': p.width / p.height,
                transform: `translate(${pan.x}px, ${pan.y}px) scale(${zoom})`,
              }"
              @click="p.id === photo.id && setFocus($event)"
            >
              <img
                :src="
                  mode === 'cover' && p.id === photo.id
                    ? `/api/photos/${p.id}/picture?uncovered=true&side=1600`
                    : p.picture + '1600'
                "
                :alt="`Photo ${p.fileName}`"
                draggable="false"
              />
              <span
                v-if="p.id === photo.id && mode === 'focus'"
                class="focus-point"
                :style="{ left: `${p.focusX * 100}%`, top: `${p.focusY * 100}%` }"
              ></span>
              <BoxLayer
                v-if="p.id === photo.id && (mode === 'keep' || mode === 'cover')"
                :boxes="boxes"
                :kind="mode"
                drawing
                @change="setBoxes"
              />
            </div>
          </div>
          <figcaption v-if="other" class="pair-line">
            <span
              >{{ p.fileName }} · {{ p.width }} × {{ p.height }}{{ p.suggestedBest ? ' · suggested best' : '' }}</span
            >
            <button type="button" class="tool" @click="choose(p, p.id === photo.id ? other : photo)">
              Keep this, leave the other
            </button>
          </figcaption>
        </figure>
        <PhotoFacts
          v-if="detail"
          class="facts"
          :album-id="albumId"
          :detail="detail"
          @change="(what: PhotoEdit) => change(what)"
        />
      </div>

      <div class="bar verdicts">
        <span data-testid="viewer-verdict">{{ verdictWords[photo.verdict] }}</span>
        <button
          v-for="[key, name, verdict] in [
            ['K', 'Keep', 'keep'],
            ['M', 'Maybe', 'maybe'],
            ['X', 'Leave out', 'leave'],
          ] as const"
          :key="key"
          type="button"
          class="tool"
          :aria-pressed="photo.verdict === verdict"
          @click="decide({ kind: 'judgePhoto', verdict })"
        >
          {{ name }} <kbd>{{ key }}</kbd>
        </button>
        <span role="group" aria-label="Stars" class="d-flex gap-1">
          <button
            v-for="n in [0, 1, 2, 3]"
            :key="n"
            type="button"
            class="tool"
            :aria-pressed="photo.favourite === n"
            :aria-label="n === 0 ? 'No stars' : `${counted(n, 'star')}`"
            @click="decide({ kind: 'starPhoto', stars: n })"
          >
            {{ n === 0 ? '–' : '★'.repeat(n) }}
          </button>
        </span>
        <span class="ms-auto"></span>
        <button
          type="button"
          class="tool"
          :aria-pressed="mode === 'focus'"
          @click="mode = mode === 'focus' ? 'look' : 'focus'"
        >
          Focus point <kbd>F</kbd>
        </button>
        <button
          type="button"
          class="tool"
          :aria-pressed="mode === 'keep'"
          @click="mode = mode === 'keep' ? 'look' : 'keep'"
        >
          Must stay <kbd>P</kbd>
        </button>
        <button
          type="button"
          class="tool"
          :aria-pressed="mode === 'cover'"
          @click="mode = mode === 'cover' ? 'look' : 'cover'"
        >
          Cover <kbd>V</kbd>
        </button>
        <template v-if="mode === 'keep' || mode === 'cover'">
          <button type="button" class="tool" @click="addBox">Add a box</button>
          <button v-if="boxes.length" type="button" class="tool" @click="setBoxes([])">Delete all</button>
        </template>
        <span v-if="mode !== 'look'" class="bar-soft">
          {{
            mode === 'focus'
              ? 'Click where the eye should go, or use the arrows.'
              : mode === 'keep'
                ? 'Drag a box over what a crop must keep.'
                : 'Drag a box over what nobody shall see; it is painted over in prints and pages.'
          }}
        </span>
      </div>
    </div>
  </BModal>
</template>

<style scoped>
.viewer {
  display: flex;
  height: 100%;
  flex-direction: column;
  background: #33302c;
  color: #fff;
}
.bar {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem;
  padding: 0.45rem 0.9rem;
  background: #26231f;
}
.bar-soft {
  color: #ddd3c4;
}
.zoom {
  min-width: 3.4em;
  text-align: center;
}
.tool {
  border: 1px solid #8d8272;
  border-radius: 0.4rem;
  background: #3d3933;
  color: #fff;
  padding: 0.2rem 0.7rem;
  min-height: 32px;
}
.tool[aria-pressed='true'] {
  background: var(--zest);
  border-color: #ffb57a;
}
.tool:disabled {
  color: #a99d8c;
}
.tool kbd {
  background: #26231f;
  color: #fff;
}
.stage {
  display: grid;
  grid-template-columns: 1fr 300px;
  flex: 1;
  min-height: 0;
}
.stage.two {
  grid-template-columns: 1fr 1fr 300px;
}
.frame {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  margin: 0;
  overflow: hidden;
  border-right: 1px solid #26231f;
}
.canvas {
  flex: 1;
  min-height: 0;
  display: grid;
  place-items: center;
  padding: 0.75rem;
  overflow: hidden;
  container-type: size;
}
.picture {
  position: relative;
  width: min(100cqw, calc(100cqh * var(--w)));
}
.picture img {
  width: 100%;
  height: 100%;
  display: block;
}
.picture.focus {
  cursor: crosshair;
}
.focus-point {
  position: absolute;
  width: 34px;
  height: 34px;
  border: 3px solid #fff;
  border-radius: 50%;
  transform: translate(-50%, -50%);
  box-shadow:
    0 0 0 2px #2b2622,
    inset 0 0 0 2px #2b2622;
  pointer-events: none;
}
.pair-line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0.4rem 0.75rem;
  gap: 0.5rem;
}
.facts {
  overflow-y: auto;
}
@media (max-width: 800px) {
  .stage,
  .stage.two {
    grid-template-columns: 1fr;
    overflow-y: auto;
  }
  .frame {
    min-height: 50vh;
  }
}
</style>
