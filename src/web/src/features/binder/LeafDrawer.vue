<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { AlbumEdit, AlbumView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useLeaf } from './queries'
import ChangesDialog from '../../shared/ChangesDialog.vue'
import LeafFace from './LeafFace.vue'
import { usePreview } from '../../shared/preview'
import { unitPlace } from '../../shared/places'

/** One leaf with both its faces, and what can be done to it. */
const props = defineProps<{ album: AlbumView; leafId: string; leaves: number }>()
const { data: detail, error } = useLeaf(
  () => props.album.id,
  () => props.leafId,
)
const { asked, ask } = usePreview(() => props.album.id)
const to = ref(1)
const tab = ref({ words: '', place: 0 })
watch(
  detail,
  (d) => {
    if (!d) return
    to.value = d.leaf.number
    tab.value = { words: d.leaf.tab ?? '', place: d.leaf.tabPlace }
  },
  { immediate: true },
)
const faces = computed(() =>
  detail.value
    ? ([
        ['front', detail.value.front, detail.value.leaf.front],
        ['back', detail.value.back, detail.value.leaf.back],
      ] as const)
    : [],
)
const both = computed(() => (detail.value?.front.pockets ?? []).filter((p) => p.behindNumber))

const edit = (change: AlbumEdit) => ask((preview) => editAlbum(props.album.id, change, preview))
const on = () => ({ leafId: props.leafId, revision: detail.value!.leaf.revision })
const fuse = (pocketKey: string) => edit({ kind: 'fusePocket', ...on(), pocketKey })
const cut = (way: { keeps: 'columns' | 'rows' | null; size: string | null }) =>
  edit({ kind: 'cutLeafDown', ...on(), keeps: way.keeps!, size: way.size! })
const stick = (pocketKey: string, together: boolean) => edit({ kind: 'stickPieces', ...on(), pocketKey, together })
const setTab = (words: string, place: number) => edit({ kind: 'tabLeaf', ...on(), words, place })
const renew = () => edit({ kind: 'renewLeaf', ...on() })
const move = (place: number) => edit({ kind: 'moveLeaf', ...on(), to: place - 1 })

function remove() {
  const unitId = detail.value!.leaf.front.unitId!
  const revision = props.album.units.find((u) => u.id === unitId)!.revision
  return edit({ kind: 'removeLeaf', unitId, revision, leafId: props.leafId })
}
</script>

<template>
  <aside class="leaf-drawer" aria-label="The leaf in hand">
    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <template v-if="detail">
      <h2 class="h5 mb-1">Leaf {{ detail.leaf.number }}</h2>
      <p class="mb-1">{{ detail.leaf.design }} · {{ detail.thickness }} thick</p>
      <p v-if="detail.leaf.note" class="small mb-1" data-testid="leaf-note">{{ detail.leaf.note }}</p>
      <div class="faces">
        <div v-for="[side, face, owner] in faces" :key="side">
          <LeafFace :face="face" :width="detail.width" :height="detail.height" :side="side" :title="owner.title" />
          <RouterLink v-if="owner.unitId" class="small" :to="unitPlace(album.id, owner.unitId, 'place')"
            >Open {{ owner.title }} ({{ owner.placed }} of {{ owner.pockets }} filled)</RouterLink
          >
        </div>
      </div>
      <p class="form-text">
        The number in the corner is the pocket's own; the one below right is the pocket behind it on the other face.
      </p>

      <fieldset>
        <legend class="h6 mb-1">Where it lies</legend>
        <div class="d-flex flex-wrap gap-2 align-items-end">
          <BButton
            size="sm"
            variant="outline-dark"
            :disabled="detail.leaf.number === 1"
            @click="move(detail.leaf.number - 1)"
            >‹ Move earlier</BButton
          >
          <BButton
            size="sm"
            variant="outline-dark"
            :disabled="detail.leaf.number === leaves"
            @click="move(detail.leaf.number + 1)"
            >Move later ›</BButton
          >
          <form class="d-flex gap-1 align-items-end" @submit.prevent="move(to)">
            <div>
              <label for="leaf-to" class="form-label mb-0">Place</label>
              <input
                id="leaf-to"
                v-model.number="to"
                type="number"
                min="1"
                :max="leaves"
                class="form-control form-control-sm place"
              />
            </div>
            <BButton type="submit" size="sm" variant="outline-dark" :disabled="to === detail.leaf.number">Move</BButton>
          </form>
          <BButton v-if="detail.leaf.between" size="sm" variant="outline-dark" @click="remove"
            >Remove this leaf</BButton
          >
        </div>
      </fieldset>

      <details v-if="detail.fusible.length || detail.cuts.length || detail.altered" class="mt-2">
        <summary class="h6 mb-0">Fuse a pocket, cut the page down</summary>
        <p class="warning-chip caution">
          ! Heat tools burn and craft knives cut: work away from yourself, guard the blade, lay nothing flammable beside
          it, and try a spare page first. Follow the maker's instructions of tool and protector.
        </p>
        <ul class="ways">
          <li v-for="way in detail.fusible" :key="`f${way.pocketKey}`">
            <BButton size="sm" variant="outline-dark" @click="fuse(way.pocketKey!)">{{ way.label }}</BButton>
          </li>
          <li v-for="way in detail.cuts" :key="`c${way.keeps}${way.size}`">
            <BButton size="sm" variant="outline-dark" @click="cut(way)">{{ way.label }}</BButton>
          </li>
          <li v-if="detail.altered">
            <BButton size="sm" variant="outline-dark" @click="renew()">Use a new leaf</BButton>
          </li>
        </ul>
      </details>

      <details v-if="both.length" class="mt-2">
        <summary class="h6 mb-0">Stuck back to back</summary>
        <p class="form-text mt-0">Pieces that are stuck together move as one, the backs with the fronts.</p>
        <label v-for="p in both" :key="p.key" class="form-check my-2">
          <input type="checkbox" class="form-check-input" :checked="p.stuck" @change="stick(p.key, !p.stuck)" />
          <span class="form-check-label">Front {{ p.number }} and back {{ p.behindNumber }}</span>
        </label>
      </details>

      <form class="mt-2 d-flex flex-wrap gap-2 align-items-end" @submit.prevent="setTab(tab.words, tab.place)">
        <div>
          <label for="tab-words" class="form-label mb-0">Index tab</label>
          <input
            id="tab-words"
            v-model="tab.words"
            maxlength="24"
            class="form-control form-control-sm"
            placeholder="none"
          />
        </div>
        <div>
          <label for="tab-place" class="form-label mb-0">at</label>
          <BFormSelect id="tab-place" v-model.number="tab.place" size="sm">
            <option v-for="i in 6" :key="i" :value="i - 1">place {{ i }} of 6</option>
          </BFormSelect>
        </div>
        <BButton type="submit" size="sm" variant="outline-dark">Save tab</BButton>
      </form>
    </template>
    <ChangesDialog v-model="asked" />
  </aside>
</template>

<style scoped>
.leaf-drawer {
  flex: 0 0 410px;
  overflow-y: auto;
  padding: 0.9rem 1.1rem 3rem;
  background: var(--card);
  border-left: 1px solid var(--line);
}
.faces {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem;
}
.place {
  width: 5rem;
}
.ways {
  display: grid;
  gap: 0.35rem;
  margin: 0.4rem 0 0;
  padding: 0;
  list-style: none;
}
.caution {
  display: block;
  margin: 0.4rem 0;
  font-size: 0.85rem;
}
@media (max-width: 800px) {
  .leaf-drawer {
    flex: none;
    border-left: 0;
  }
}
</style>
