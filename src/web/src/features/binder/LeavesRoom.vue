<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed, nextTick, ref } from 'vue'
import type { AlbumView, BinderLeaf } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useLeaves } from './queries'
import InsertsPanel from './InsertsPanel.vue'
import LeafDrawer from './LeafDrawer.vue'
import ChangesDialog from '../../shared/ChangesDialog.vue'
import LeafThumb from './LeafThumb.vue'
import { place } from '../../shared/places'
import { usePreview } from '../../shared/preview'

/** The binder from its first leaf to its last, both faces of each side by side; one of them in hand. */
const props = defineProps<{ album: AlbumView }>()
const { data: leaves, error } = useLeaves(() => props.album.id)
const pockets = computed(() => (leaves.value ?? []).reduce((sum, l) => sum + l.front.pockets + l.back.pockets, 0))
const inserted = computed(() => (leaves.value ?? []).flatMap((l) => l.inserts).reduce((sum, i) => sum + i.leaves, 0))
const inHand = ref<string>()
const strip = ref<HTMLElement>()
const current = computed(() => leaves.value?.find((l) => l.leafId === inHand.value) ?? leaves.value?.[0])

const { asked, ask } = usePreview(() => props.album.id)
const schools = { spread: 'facing pages', leaf: 'front and back of one leaf' } as const

/** Says what changes sides, then changes how a part of the album takes its pages. */
const changeSchool = (event: Event) => {
  const select = event.target as HTMLSelectElement
  const school = select.value as keyof typeof schools
  select.value = props.album.school
  return ask((preview) =>
    editAlbum(props.album.id, { kind: 'changeSchool', revision: props.album.revision, school }, preview),
  )
}

/** How many leaves stand in one row of the strip, for the arrow keys. */
function columns() {
  const items = [...(strip.value?.children ?? [])] as HTMLElement[]
  return Math.max(
    1,
    items.findIndex((i) => i.offsetTop !== items[0]?.offsetTop),
  )
}

async function onKey(event: KeyboardEvent, leaf: BinderLeaf) {
  const step = {
    ArrowRight: 1,
    ArrowLeft: -1,
    ArrowDown: columns(),
    ArrowUp: -columns(),
    Home: -leaf.number,
    End: leaves.value?.length,
  }[event.key]
  if (!step || !leaves.value) return
  event.preventDefault()
  const to = leaves.value[Math.min(Math.max(leaf.number - 1 + step, 0), leaves.value.length - 1)]!
  inHand.value = to.leafId
  await nextTick()
  document.getElementById(`leaf-${to.leafId}`)?.focus()
}
</script>

<template>
  <div class="leaves-room">
    <div class="binder-side">
      <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
      <p v-if="leaves" data-testid="leaves-sum">
        {{ counted(leaves.length, 'leaf', 'leaves') }}, {{ counted(pockets, 'pocket') }} front and back.
        <template v-if="inserted">{{ counted(inserted, 'more leaf', 'more leaves') }} of inserted albums. </template>The
        front of a leaf lies at the right of a spread, its back at the left of the next.
      </p>
      <InsertsPanel :album="album" :has-tabs="(leaves ?? []).some((l) => !!l.tab)" />
      <p v-if="album.facesPerUnit === 2" class="d-flex gap-2 align-items-center flex-wrap">
        <label for="album-school">Each week or day takes</label>
        <select
          id="album-school"
          class="form-select form-select-sm w-auto"
          :value="album.school"
          @change="changeSchool"
        >
          <option v-for="(name, key) in schools" :key="key" :value="key">{{ name }}</option>
        </select>
      </p>
      <ChangesDialog v-model="asked" />
      <ol ref="strip" class="binder" aria-label="Leaves in their order">
        <li v-for="leaf in leaves" :key="leaf.leafId" class="d-flex flex-column gap-1">
          <button
            :id="`leaf-${leaf.leafId}`"
            type="button"
            class="leaf"
            :class="[leaf.kind, { on: leaf.leafId === current?.leafId, between: leaf.between }]"
            :aria-pressed="leaf.leafId === current?.leafId"
            :tabindex="leaf.leafId === current?.leafId ? 0 : -1"
            @click="inHand = leaf.leafId"
            @keydown="onKey($event, leaf)"
          >
            <span class="head"
              ><strong><span class="visually-hidden">Leaf </span>{{ leaf.number }}</strong>
              <span v-if="leaf.tab" class="tab"><span class="visually-hidden">tab </span>{{ leaf.tab }}</span></span
            >
            <span class="sides">
              <span v-for="side in ['front', 'back'] as const" :key="side" class="side">
                <LeafThumb :leaf="leaf" :side="side" />
                <span class="small text-truncate w-100"
                  ><span class="visually-hidden">{{ side }} </span>{{ leaf[side].title }}</span
                >
                <span class="small visually-quiet"
                  >{{ leaf[side].pockets ? `${leaf[side].placed}/${leaf[side].pockets}` : 'no pockets' }}
                  <span class="visually-hidden">filled, </span></span
                >
              </span>
            </span>
            <span class="small text-truncate w-100">{{ leaf.design }}</span>
          </button>
          <RouterLink
            v-for="i in leaf.inserts"
            :key="i.albumId"
            :to="place(i.albumId, { kind: 'album' }, 'count', 'leaves')"
            class="inserted small"
            data-testid="inserted-leaves"
            ><strong>{{ i.name }}</strong
            ><br />{{ i.words }}</RouterLink
          >
        </li>
      </ol>
    </div>
    <LeafDrawer
      v-if="current && leaves"
      :key="current.leafId"
      :album="album"
      :leaf-id="current.leafId"
      :leaves="leaves.length"
    />
  </div>
</template>

<style scoped>
.leaves-room {
  display: flex;
  flex: 1;
  min-width: 0;
  min-height: 0;
}
.binder-side {
  flex: 1;
  min-width: 0;
  overflow-y: auto;
  padding: 1rem 1.25rem 3rem;
}
.binder {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
  gap: 0.6rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.binder li {
  content-visibility: auto;
  contain-intrinsic-size: auto 10rem;
}
.leaf {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.15rem;
  width: 100%;
  height: 100%;
  padding: 0.45rem 0.6rem;
  text-align: left;
  color: var(--ink);
  background: var(--card);
  border: 1px solid var(--line);
  border-left: 6px solid var(--mat);
  border-radius: 0.5rem;
}
.inserted {
  padding: 0.3rem 0.6rem;
  background: var(--tape);
  border-left: 6px solid var(--zest);
  border-radius: 0.5rem;
}
.leaf.between {
  border-left-color: var(--zest);
}
.leaf.on {
  box-shadow: inset 0 0 0 3px var(--zest-bright);
}
.leaf:focus-visible {
  outline-offset: -5px;
}
.tab {
  padding: 0 0.4rem;
  background: var(--tape);
  border-radius: 0 0.4rem 0.4rem 0;
  font-size: 0.75rem;
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
  width: 100%;
}
.side {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  justify-content: flex-end;
  min-width: 0;
}
@media (max-width: 800px) {
  .leaves-room {
    flex-direction: column;
    overflow-y: auto;
  }
  .binder-side {
    flex: none;
    overflow: visible;
  }
}
</style>
