<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { albumPlace, unitPlace } from '../../shared/places'
import {
  answer,
  api,
  type AlbumEdit,
  type AlbumView,
  type CountView,
  type WayToFit,
  type UnitView,
} from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useCounts } from './queries'
import type { Edit } from '../placing/unit'
import ChangesDialog from '../../shared/ChangesDialog.vue'
import PageChoices from './PageChoices.vue'
import { usePreview } from '../../shared/preview'
import TallyBar from './TallyBar.vue'

/**
 * Pieces against pockets, and what to do about the difference: by hand, move by move, or by asking which pages hold
 * it all.
 */
const props = defineProps<{
  unit?: UnitView
  /** The weeks or days to count, in their order. */
  unitIds: string[]
  album: AlbumView
  edit: (change: Edit) => Promise<unknown>
}>()
const router = useRouter()
const { asked, ask, act } = usePreview(() => props.album.id)
const { data: counts, error } = useCounts(
  () => props.album.id,
  () => props.unitIds[0]!,
  () => props.unitIds.length,
)
const count = computed(() => counts.value?.[0])
const whole = computed(() => props.unitIds.length === props.album.units.length)
const words = (c: CountView | undefined) => props.album.units.find((u) => u.id === c?.unitId)?.title
const heading = computed(() => {
  const { unit, unitIds } = props
  if (unitIds.length === 1 && unit) return `Pieces and pockets of ${unit.inSentence} · ${unit.label}`
  if (whole.value) return 'Pieces and pockets of the whole album'
  return `Pieces and pockets of ${words(counts.value?.[0]) ?? ''} to ${words(counts.value?.at(-1)) ?? ''}`
})
const totals = computed(() =>
  (counts.value ?? []).reduce(
    (sum, c) => ({
      pieces: sum.pieces + c.pieces,
      pockets: sum.pockets + c.pockets,
      lacking: sum.lacking + c.lacking,
      free: sum.free + c.free,
      faces: sum.faces + c.faces,
      emptyFaces: sum.emptyFaces + c.emptyFaces,
    }),
    { pieces: 0, pockets: 0, lacking: 0, free: 0, faces: 0, emptyFaces: 0 },
  ),
)

const one = (name: string) => name.replace(/ies$/, 'y').replace(/s$/, '')
/** The stretch by kind of piece and by size of pocket. */
const kinds = computed(() => {
  const sum = new Map<string, number>()
  for (const w of (counts.value ?? []).flatMap((c) => c.wanted)) sum.set(w.name, (sum.get(w.name) ?? 0) + w.count)
  return [...sum]
})
const sizes = computed(() => {
  const sum = new Map<string, [string, number, number]>()
  for (const p of (counts.value ?? []).flatMap((c) => c.bySize)) {
    const [, n, free] = sum.get(p.size) ?? [p.size, 0, 0]
    sum.set(p.size, [p.size, n + p.count, free + p.free])
  }
  return [...sum.values()]
})

const editLeaves = (change: () => AlbumEdit) => ask((preview) => editAlbum(props.album.id, change(), preview))
/** As the album has it now: an edit before this one may have touched it. */
const on = (of: CountView) => ({
  unitId: of.unitId,
  revision: Math.max(of.revision, props.album.units.find((u) => u.id === of.unitId)?.revision ?? 0),
})
const add = (of: CountView, protectorId: string) => editLeaves(() => ({ kind: 'addLeaf', ...on(of), protectorId }))
const remove = (of: CountView, leafId: string) => editLeaves(() => ({ kind: 'removeLeaf', ...on(of), leafId }))
const fuse = (of: CountView, way: WayToFit) =>
  editLeaves(() => ({
    kind: 'fusePocket',
    leafId: way.leafId!,
    revision: of.leaves.find((l) => l.leafId === way.leafId)!.revision,
    pocketKey: way.pocketKey!,
  }))

/** A leaf that is put in by hand: one of the album's makes, or one outside the pockets. */
const insert = ref('sheet')
const fold = ref({ size: '', at: '' })
const outside = { sheet: 'sheet', foldOut: 'foldOut', divider: 'divider', envelope: 'envelope' } as const
function putIn(of: CountView) {
  const kind = outside[insert.value as keyof typeof outside]
  return kind
    ? editLeaves(() => ({
        kind: 'addNewLeaf',
        ...on(of),
        make: {
          kind,
          size: kind === 'foldOut' ? fold.value.size : null,
          fold: kind === 'foldOut' ? fold.value.at : null,
        },
      }))
    : add(of, insert.value)
}

const design = (of: CountView, leafId: string, protectorId: string) =>
  act(() => editAlbum(props.album.id, { kind: 'giveDesign', ...on(of), leafId, protectorId }))

async function merge(of: CountView) {
  const done = await act(() => editAlbum(props.album.id, { kind: 'mergeUnit', ...on(of) }))
  if (done?.unitId) void router.push(unitPlace(props.album.id, done.unitId, 'count'))
}

/** An edit of another part than the open one. */
const editOf = (of: CountView) => (change: Edit) =>
  act(async () => {
    const done = await answer(
      api.POST('/api/units/{id}/edits', {
        params: { path: { id: of.unitId } },
        body: { ...change, revision: of.revision },
      }),
    )
    return { done: done.done, editId: null }
  })
const makeFor = (of: CountView, move: WayToFit) =>
  make(of, move, of.unitId === props.unit?.id ? props.edit : editOf(of))

function make(of: CountView, move: WayToFit, edit: (change: Edit) => Promise<unknown> = props.edit) {
  switch (move.kind) {
    case 'joinCards':
      return edit({ kind: 'joinCards', pieceId: move.pieceId!, otherId: move.otherId! })
    case 'smallerPockets':
    case 'largerPockets':
      return design(of, move.leafId!, move.protectorId!)
    case 'addLeaf':
      return add(of, move.protectorId!)
    case 'removeLeaf':
      return remove(of, move.leafId!)
    case 'makeCollage':
      return edit({ kind: 'addCollage', collage: { size: move.size!, photoIds: move.photoIds! } })
    case 'fusePocket':
      return fuse(of, move)
    case 'spanPockets':
      return edit({ kind: 'putSpan', photoId: move.photoIds![0]!, places: move.places! })
    case 'leaveEmpty':
      return edit({ kind: 'leaveEmpty', place: move.places![0]!, empty: true })
    case 'useKeepsake':
      return edit({ kind: 'useKeepsake', pieceId: move.pieceId!, place: move.places![0]! })
    case 'addFiller':
      return edit({ kind: 'addCard', cardKind: 'filler', words: '' })
    default:
      return merge(of)
  }
}
</script>

<template>
  <div class="count">
    <h2 class="h5 mb-3">{{ heading }}</h2>
    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <template v-if="count && unitIds.length === 1">
      <p class="sum" aria-live="polite" data-testid="sum">{{ count.sum }}</p>
      <TallyBar :count="count" />
      <p v-if="count.hint" class="hint" data-testid="hint">{{ count.hint }}</p>
      <p v-if="count.formula" class="hint" data-testid="formula-gap">
        Formula “{{ count.formula.name }}”:
        {{ count.formula.missing ? `${count.formula.missing} still missing` : 'its minimum is met'
        }}{{ count.formula.beyond ? `; ${count.formula.beyond}` : '' }}.
      </p>
      <label class="form-check my-2">
        <input
          type="checkbox"
          class="form-check-input"
          :checked="count.keepsItsPages"
          @change="edit({ kind: 'keepPages', keep: !count.keepsItsPages })"
        />
        <span class="form-check-label">Don’t add leaves to this week</span>
      </label>
      <div class="two">
        <section aria-label="What to do about it">
          <h3 class="h6">
            {{ count.lacking ? 'Ways to make it fit' : count.free ? 'Pockets to spare' : 'It comes out even' }}
          </h3>
          <ul v-if="count.ways.length" class="ways">
            <li v-for="(move, i) in count.ways" :key="i">
              <BButton size="sm" variant="outline-dark" @click="make(count, move)">{{ move.label }}</BButton>
              <span class="small">{{ move.gain }}</span>
            </li>
          </ul>
          <p v-else class="visually-quiet">Every piece has its pocket and every pocket its piece.</p>
        </section>
        <section aria-label="Its leaves">
          <h3 class="h6">Its leaves</h3>
          <ol class="leaves">
            <li v-for="leaf in count.leaves" :key="leaf.leafId">
              <span class="faces" :class="{ half: leaf.faces === 1 }" aria-hidden="true"><i></i><i></i></span>
              <div class="grow">
                <label v-if="leaf.kind === 'pockets'" :for="`leaf-${leaf.leafId}`" class="visually-hidden"
                  >Design of the leaf with {{ leaf.design }}</label
                >
                <span v-if="leaf.kind !== 'pockets'" :id="`leaf-${leaf.leafId}`" class="fw-semibold d-block">{{
                  leaf.design
                }}</span>
                <BFormSelect
                  v-else
                  :id="`leaf-${leaf.leafId}`"
                  size="sm"
                  :model-value="leaf.protectorId"
                  @update:model-value="design(count!, leaf.leafId, $event as string)"
                >
                  <option v-for="p in album.protectors.filter((o) => o.kind === 'pockets')" :key="p.id" :value="p.id">
                    {{ p.id === leaf.protectorId ? leaf.design : p.designName }}
                  </option>
                </BFormSelect>
                <span class="small visually-quiet">
                  {{
                    leaf.faces === 2
                      ? 'both faces'
                      : `one face; the other is ${leaf.otherSide ?? 'the title or end page'}`
                  }}, {{ counted(leaf.placed, 'piece') }} on it{{ leaf.mayChange ? '' : ', kept as it is' }}
                </span>
              </div>
              <BButton v-if="leaf.mayGo" size="sm" variant="outline-dark" @click="remove(count, leaf.leafId)"
                >Remove leaf</BButton
              >
            </li>
          </ol>
          <form class="d-flex flex-wrap gap-2 align-items-end mt-2" @submit.prevent="putIn(count)">
            <div>
              <label for="put-in" class="form-label mb-0">Add a leaf</label>
              <BFormSelect id="put-in" v-model="insert" size="sm">
                <option value="sheet">a page outside the pockets</option>
                <option value="foldOut">a fold-out</option>
                <option value="divider">a clear divider</option>
                <option value="envelope">the envelope</option>
                <option
                  v-for="p in album.protectors.filter((o) => !o.gone && o.kind === 'pockets')"
                  :key="p.id"
                  :value="p.id"
                >
                  {{ p.designName }}
                </option>
              </BFormSelect>
            </div>
            <template v-if="insert === 'foldOut'">
              <div>
                <label for="fold-size" class="form-label mb-0">Sheet</label>
                <input
                  id="fold-size"
                  v-model="fold.size"
                  class="form-control form-control-sm short"
                  placeholder="6x8"
                  required
                />
              </div>
              <div>
                <label for="fold-at" class="form-label mb-0">Fold from the rings</label>
                <input
                  id="fold-at"
                  v-model="fold.at"
                  class="form-control form-control-sm short"
                  placeholder="3 1/2 in"
                  required
                />
              </div>
            </template>
            <BButton type="submit" size="sm" variant="outline-dark">Add leaf</BButton>
            <RouterLink class="small" :to="albumPlace(album.id, 'count', 'leaves')"
              >Move, fuse or cut leaves</RouterLink
            >
          </form>
        </section>
      </div>
    </template>
    <template v-else-if="counts">
      <p class="sum" data-testid="sum">
        {{ counted(totals.pieces, 'piece') }}; {{ counted(totals.pockets, 'pocket') }};
        {{ totals.lacking ? `${totals.lacking} short` : 'none short' }}, {{ totals.free }} free in
        {{ counted(counts.length, 'week or day', 'weeks or days') }}.
      </p>
      <p class="small visually-quiet mb-2">
        {{ totals.faces }} pages, {{ totals.emptyFaces }} of them with nothing on them yet.
        <span v-for="[name, n] in kinds" :key="name">{{ counted(n, one(name), name) }} · </span
        ><span v-for="[size, n, free] in sizes" :key="size"
          >{{ counted(n, 'pocket') }} of {{ size }}, {{ free }} open now ·
        </span>
      </p>
      <table class="table table-sm">
        <thead>
          <tr>
            <th scope="col">Week or day</th>
            <th scope="col">The sum</th>
            <th scope="col">Leaves</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in counts" :key="c.unitId">
            <th scope="row">
              <RouterLink :to="unitPlace(album.id, c.unitId, 'count', 'tally')">{{ c.title }}</RouterLink>
            </th>
            <td>
              <span :class="{ 'warning-chip': c.lacking }">{{ c.lacking ? '! ' : '' }}{{ c.sum }}</span>
              <span v-if="c.formula?.missing" class="d-block small">{{ c.formula.missing }} still missing</span>
              <span v-if="c.ways[0]" class="d-block mt-1">
                <BButton
                  size="sm"
                  variant="outline-dark"
                  :aria-label="`${c.ways[0].label}, for ${c.title}`"
                  @click="makeFor(c, c.ways[0])"
                  >{{ c.ways[0].label }}</BButton
                >
                <span class="small"> {{ c.ways[0].gain }}</span>
              </span>
            </td>
            <td class="small">{{ c.leaves.map((l) => l.design).join(' · ') }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <PageChoices v-if="counts" :album="album" :counts="counts" />
    <ChangesDialog v-model="asked" />
  </div>
</template>

<style scoped>
.count {
  flex: 1;
  overflow-y: auto;
  padding: 1rem 1.25rem 4rem;
}
.hint {
  margin: 0.4rem 0 0;
  padding: 0.35rem 0.7rem;
  background: var(--zest-pale);
  border-radius: 0.4rem;
}
.short {
  width: 6.5rem;
}
.sum {
  font-size: 1.25rem;
  font-weight: 600;
  margin-bottom: 0.6rem;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(20rem, 1fr));
  gap: 1.5rem;
  margin: 1rem 0 1.5rem;
}
.ways,
.leaves {
  display: grid;
  gap: 0.5rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.ways li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.6rem;
  align-items: center;
}
.leaves li {
  display: flex;
  gap: 0.7rem;
  align-items: center;
}
.grow {
  flex: 1;
}
.faces {
  display: flex;
  gap: 2px;
}
.faces i {
  width: 1.1rem;
  height: 1.6rem;
  border: 2px solid var(--mat-dark);
  background: var(--zest-pale);
}
.faces.half i:first-child {
  background: none;
  border-style: dashed;
}
</style>
