<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { AlbumPage, AlbumView } from '../../api/client'
import { unitPlace } from '../../shared/places'
import { usePages } from './queries'
import { leavesOf, openingsOf, sheetAt } from './reading'

/** Leafs through the album as it will lie on the table, or proofs a leaf with both its sides beside each other. */
const props = defineProps<{ album: AlbumView; unitIds: string[]; whole: boolean; reader?: boolean }>()
const emit = defineEmits<{ seen: [unitId: string] }>()
const { data: pages, error } = usePages(() => props.album.id)

const inScope = computed(() => {
  const units = new Set(props.unitIds)
  const all = pages.value ?? []
  if (props.whole) return all
  // What lies open with a page of the scope is seen with it.
  const openings = new Set(all.filter((p) => units.has(p.unitId)).map((p) => p.opening))
  return all.filter((p) => openings.has(p.opening))
})
const byLeaf = ref(false)
const trueSize = ref(false)
const sheets = computed(() =>
  byLeaf.value ? leavesOf(pages.value ?? [], new Set(inScope.value.map((p) => p.leafId))) : openingsOf(inScope.value),
)
const at = ref(0)
// An album is opened where it begins to hold something.
watch(
  () => pages.value !== undefined,
  (read) => {
    if (read)
      at.value = Math.max(
        0,
        openingsOf(inScope.value).findIndex((s) => s.pages.some((p) => !p.isEmpty)),
      )
  },
  { immediate: true },
)
const sheet = computed(() => sheets.value[Math.min(at.value, sheets.value.length - 1)])
/** An inserted album is named with its weeks or days. */
const titleOf = (p: AlbumPage) => (p.inserted ? `${p.inserted}: ${p.unitTitle}` : p.unitTitle)
const titles = computed(() => [...new Set(sheet.value?.pages.map(titleOf) ?? [])])
const pageOf = (title: string) => sheet.value!.pages.find((p) => titleOf(p) === title)!

// The same page stays in sight when the way of looking changes.
watch(byLeaf, () => {
  const seen = shown.value
  if (seen) at.value = Math.max(0, sheetAt(sheets.value, seen))
})
const shown = ref<AlbumPage>()
watch(
  sheet,
  (s) => {
    shown.value = s?.pages[0]
    if (shown.value && !shown.value.inserted) emit('seen', shown.value.unitId)
  },
  { immediate: true },
)

/** Which way a leaf is being turned, while it is. */
const turning = ref<'' | 'on' | 'back'>('')
function turn(step: number) {
  const to = Math.min(Math.max(at.value + step, 0), sheets.value.length - 1)
  if (to === at.value) return
  turning.value = step > 0 ? 'on' : 'back'
  at.value = to
}
function onKey(event: KeyboardEvent) {
  const step = { ArrowRight: 1, ArrowLeft: -1, PageDown: 1, PageUp: -1, Home: -9999, End: 9999 }[event.key]
  if (!step || event.ctrlKey || event.altKey || event.metaKey) return
  event.preventDefault()
  turn(step)
}

const stage = ref<HTMLElement>()
const { width, height } = useElementSize(stage, { width: 800, height: 500 })
const cssInch = 96
const scale = computed(() => {
  const both = sheet.value ? [sheet.value.left, sheet.value.right] : []
  const wide = both.reduce((sum, p) => sum + (p ?? sheet.value!.pages[0]!).widthInches, 0)
  const high = Math.max(1, ...(sheet.value?.pages ?? []).map((p) => p.heightInches))
  return trueSize.value ? cssInch : Math.max(10, Math.min((width.value - 40) / wide, (height.value - 20) / high))
})
const box = (page: AlbumPage) => ({
  width: `${page.widthInches * scale.value}px`,
  height: `${page.heightInches * scale.value}px`,
})
const ppi = computed(() => [48, 96, 150].find((r) => r >= scale.value * (window.devicePixelRatio || 1)) ?? 150)
const altOf = (page: AlbumPage) => `${page.side === 'back' ? 'Left' : 'Right'} page of ${titleOf(page)}, ${page.name}`
</script>

<template>
  <div class="reading">
    <div class="mat-bar">
      <button type="button" class="btn btn-sm btn-outline-dark" :disabled="at === 0" @click="turn(-1)">
        ‹ Turn back
      </button>
      <strong data-testid="opening">
        <template v-for="(t, i) in titles" :key="t"
          ><template v-if="i"> · </template><template v-if="reader">{{ t }}</template
          ><RouterLink v-else :to="unitPlace(pageOf(t).albumId, pageOf(t).unitId, 'place')">{{
            t
          }}</RouterLink></template
        >
      </strong>
      <span v-if="sheets.length" class="visually-quiet" role="status"
        >{{ byLeaf ? 'leaf' : 'opening' }} {{ Math.min(at, sheets.length - 1) + 1 }} of {{ sheets.length }}</span
      >
      <button
        type="button"
        class="btn btn-sm btn-outline-dark ms-auto"
        :aria-pressed="byLeaf"
        @click="byLeaf = !byLeaf"
      >
        Both sides of a leaf
      </button>
      <button type="button" class="btn btn-sm btn-outline-dark" :aria-pressed="trueSize" @click="trueSize = !trueSize">
        {{ trueSize ? 'Fit the mat' : 'True size' }}
      </button>
      <button type="button" class="btn btn-sm btn-outline-dark" :disabled="at >= sheets.length - 1" @click="turn(1)">
        Turn the leaf ›
      </button>
    </div>
    <p v-if="error" class="warning-chip m-3" role="alert">! {{ error.message }}</p>
    <p v-else-if="pages && sheets.length === 0" class="m-3">
      There are no pages here yet. Give the album leaves in Count, or choose another week or day.
    </p>
    <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
    <div
      ref="stage"
      class="stage"
      :class="[trueSize ? 'true-size' : '', turning && `turning-${turning}`]"
      tabindex="0"
      role="group"
      aria-label="The open album: the arrow keys turn the leaves"
      @keydown="onKey"
      @animationend="turning = ''"
    >
      <div v-if="sheet" :key="`${byLeaf} ${at}`" class="opening">
        <figure v-for="page in [sheet.left, sheet.right]" :key="page ? page.leafId + page.side : 'none'" class="m-0">
          <img v-if="page" class="leaf" :src="page.picture + ppi" :alt="altOf(page)" :style="box(page)" />
          <div v-else class="leaf none" :style="box(sheet.pages[0]!)"></div>
          <figcaption v-if="byLeaf && page" class="small visually-quiet">
            {{ page.side === 'front' ? 'Front' : 'Back' }}: {{ titleOf(page) }}
          </figcaption>
        </figure>
      </div>
    </div>
    <div v-if="sheets.length > 1" class="through">
      <label for="through" class="visually-hidden">Leaf through</label>
      <input
        id="through"
        type="range"
        class="form-range"
        min="0"
        :max="sheets.length - 1"
        :value="Math.min(at, sheets.length - 1)"
        :aria-valuetext="titles.join(' and ')"
        @input="at = Number(($event.target as HTMLInputElement).value)"
      />
    </div>
  </div>
</template>

<style scoped>
.reading {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-width: 0;
  min-height: 0;
}
.stage {
  flex: 1;
  min-height: 260px;
  overflow: hidden;
  display: flex;
  align-items: center;
  justify-content: center;
  background: var(--mat);
}
.stage.true-size {
  overflow: auto;
  display: block;
  padding: 14px;
}
.mat-bar a {
  color: inherit;
}
.opening {
  display: flex;
  gap: 6px;
  width: max-content;
  margin: 0 auto;
}
.opening figcaption {
  margin-top: 0.2rem;
  color: var(--mat-words, inherit);
  text-align: center;
}
.leaf {
  display: block;
  background: #fff;
  border-radius: 3px;
  box-shadow: 0 3px 12px rgb(0 0 0 / 0.35);
}
.leaf.none {
  background: none;
  box-shadow: none;
}
.through {
  padding: 0.2rem 1rem;
  background: var(--tabs);
}
.turning-on .opening figure:last-child {
  animation: leaf-on 320ms ease-out;
  transform-origin: left center;
}
.turning-back .opening figure:first-child {
  animation: leaf-back 320ms ease-out;
  transform-origin: right center;
}
</style>
