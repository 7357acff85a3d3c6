<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import type { PhotoView } from '../../api/client'
import { photoWords } from './edits'
import { cells, heightOf, rowsOf } from './grid'
import PhotoMarks from './PhotoMarks.vue'

const props = defineProps<{
  photos: PhotoView[]
  more: boolean
  selected: Set<string>
  headingOf: (photo: PhotoView) => string
}>()
const emit = defineEmits<{
  more: []
  open: [photo: PhotoView]
  select: [photo: PhotoView, range: boolean]
  key: [photo: PhotoView, event: KeyboardEvent]
}>()

const box = ref<HTMLElement>()
const { width, height } = useElementSize(box, { width: 900, height: 600 })
const focused = ref(0)

const columns = computed(() => cells(width.value))
const rows = computed(() => rowsOf(props.photos, columns.value, props.headingOf))
/** Only the rows near the screen are in the page: ten thousand pictures are a few dozen elements. */
const window = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => box.value ?? null,
    estimateSize: (index: number) => heightOf(rows.value[index]!),
    getItemKey: (index: number) => rows.value[index]!.key,
    overscan: 4,
    initialRect: { width: 900, height: 600 },
  })),
)
const shown = computed(() =>
  window.value.getVirtualItems().flatMap(({ index, start }) => {
    const row = rows.value[index]
    return row ? [{ row, top: `${start}px` }] : []
  }),
)
const full = computed(() => `${window.value.getTotalSize()}px`)

function askForMore() {
  const { scrollTop = 0, scrollHeight = 0 } = box.value ?? {}
  if (props.more && scrollHeight - scrollTop < height.value * 3) emit('more')
}

watch(
  () => props.photos.length,
  (now, before) => {
    if (now < before) {
      focused.value = 0
      if (box.value) box.value.scrollTop = 0
    }
    void nextTick(askForMore)
  },
)
watch(height, askForMore)

async function onKey(event: KeyboardEvent, index: number) {
  const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: columns.value, ArrowUp: -columns.value }[event.key]
  if (step === undefined) {
    const photo = props.photos[index]
    if (photo) emit('key', photo, event)
    return
  }
  event.preventDefault()
  await focus(Math.min(Math.max(index + step, 0), props.photos.length - 1))
}

/** Scrolls a picture into view if need be and puts the focus on it. */
async function focus(index: number) {
  focused.value = index
  const at = rows.value.findIndex((r) => r.kind === 'photos' && index >= r.first && index < r.first + r.photos.length)
  if (at >= 0) window.value.scrollToIndex(at, { align: 'auto' })
  const found = () => box.value?.querySelector<HTMLElement>(`[data-index="${index}"]`)
  // The row comes into the page once the box has scrolled.
  await nextTick()
  if (!found()) await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
  found()?.focus()
}

defineExpose({ focus })
</script>

<template>
  <div ref="box" class="grid-box" data-testid="photo-grid" tabindex="-1" @scroll.passive="askForMore">
    <div class="grid-full" :style="{ height: full }">
      <template v-for="{ row, top } in shown" :key="row.key">
        <h2 v-if="row.kind === 'day'" class="grid-day" :style="{ top }">{{ row.label }}</h2>
        <ul v-else class="grid-row" :style="{ top, gridTemplateColumns: `repeat(${columns}, 1fr)` }">
          <li v-for="(photo, i) in row.photos" :key="photo.id" class="cell" :class="{ on: selected.has(photo.id) }">
            <button
              type="button"
              class="cell-photo"
              :data-index="row.first + i"
              :data-photo="photo.id"
              :tabindex="row.first + i === focused ? 0 : -1"
              :aria-label="photoWords(photo)"
              :title="photo.fileName"
              @click="emit('open', photo)"
              @focus="focused = row.first + i"
              @keydown="onKey($event, row.first + i)"
            >
              <img :src="photo.picture + '512'" alt="" loading="lazy" decoding="async" />
              <PhotoMarks :photo="photo" />
            </button>
            <span class="cell-line">
              <input
                type="checkbox"
                class="form-check-input m-0"
                :checked="selected.has(photo.id)"
                :aria-label="`Choose ${photo.fileName}`"
                @click="emit('select', photo, ($event as MouseEvent).shiftKey)"
              />
              <span class="text-truncate">{{
                photo.dayLabel ? `${photo.dayLabel} ${photo.time ?? ''}` : photo.fileName
              }}</span>
            </span>
          </li>
        </ul>
      </template>
    </div>
  </div>
</template>

<style scoped>
.grid-box {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  position: relative;
  overflow-anchor: none;
}
.grid-full {
  position: relative;
}
.grid-day,
.grid-row {
  position: absolute;
  left: 0;
  right: 0;
  margin: 0;
}
.grid-day {
  height: 34px;
  padding: 9px 4px 0;
  font-size: 0.9rem;
  font-family: inherit;
}
.grid-row {
  display: grid;
  gap: 8px;
  padding: 0 4px;
  height: 150px;
  list-style: none;
}
.cell {
  min-width: 0;
}
.cell-photo {
  position: relative;
  display: block;
  width: 100%;
  height: 116px;
  padding: 0;
  border: 2px solid transparent;
  border-radius: 5px;
  background: var(--line);
  overflow: hidden;
}
.cell-photo img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.cell.on .cell-photo {
  border-color: var(--zest);
}
.cell-line {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  height: 24px;
  font-size: 0.78rem;
  color: var(--ink-soft);
}
.cell-line input {
  width: 1.15rem;
  height: 1.15rem;
  flex: none;
}
</style>
