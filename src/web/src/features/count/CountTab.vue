<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, type AlbumView, type CountView, type MoveView, type UnitView } from '../../api/client'
import { useAct } from '../../shared/act'
import { useCounts } from '../albums/queries'
import type { Edit } from '../place/unit'
import PageChoices from './PageChoices.vue'
import StockPanel from './StockPanel.vue'
import TallyBar from './TallyBar.vue'

/** Pieces against pockets, and what to do about the difference: by hand, move by move, or by asking which pages hold it all. */
const props = defineProps<{ unit: UnitView; album: AlbumView; edit: (change: Edit) => Promise<unknown> }>()
const router = useRouter()
const { act } = useAct(() => props.album.id)
const stretch = ref(1)
const { data: counts, error } = useCounts(
  () => props.album.id,
  () => props.unit.id,
  stretch,
)
const count = computed(() => counts.value?.[0])
const most = computed(() => props.album.units.length - props.album.units.findIndex((u) => u.id === props.unit.id))
const totals = computed(() =>
  (counts.value ?? []).reduce(
    (sum, c) => ({ pieces: sum.pieces + c.pieces, pockets: sum.pockets + c.pockets, lacking: sum.lacking + c.lacking }),
    { pieces: 0, pockets: 0, lacking: 0 },
  ),
)

const add = (of: CountView, protectorId: string) =>
  act(() =>
    answer(
      api.POST('/api/units/{id}/leaves', {
        params: { path: { id: of.unitId } },
        body: { revision: of.revision, protectorId },
      }),
    ),
  )

const remove = (of: CountView, leafId: string) =>
  act(() =>
    answer(
      api.DELETE('/api/units/{id}/leaves/{leafId}', {
        params: { path: { id: of.unitId, leafId }, query: { revision: of.revision } },
      }),
    ),
  )

const design = (leafId: string, protectorId: string) => props.edit({ kind: 'chooseDesign', leafId, protectorId })

async function merge(of: CountView) {
  const done = await act(() =>
    answer(api.POST('/api/units/{id}/merge', { params: { path: { id: of.unitId } }, body: { revision: of.revision } })),
  )
  if (done?.unitId)
    void router.push({ name: 'desk', params: { albumId: props.album.id, unitId: done.unitId, tab: 'count' } })
}

function make(of: CountView, move: MoveView) {
  switch (move.kind) {
    case 'joinCards':
      return props.edit({ kind: 'joinCards', pieceId: move.pieceId, otherId: move.otherId })
    case 'smallerPockets':
    case 'largerPockets':
      return design(move.leafId!, move.protectorId!)
    case 'addLeaf':
      return add(of, move.protectorId!)
    case 'removeLeaf':
      return remove(of, move.leafId!)
    case 'addFiller':
      return props.edit({ kind: 'addCard', cardKind: 'filler', words: '' })
    default:
      return merge(of)
  }
}
</script>

<template>
  <div class="count">
    <div class="d-flex align-items-end gap-3 flex-wrap mb-3">
      <h2 class="h5 mb-0 me-auto">Pieces and pockets of {{ unit.inSentence }} · {{ unit.label }}</h2>
      <div class="d-flex gap-2 align-items-center">
        <label for="stretch" class="form-label m-0">Count on from here</label>
        <input
          id="stretch"
          v-model.number.lazy="stretch"
          type="number"
          min="1"
          :max="Math.min(40, most)"
          class="form-control form-control-sm stretch"
        />
      </div>
    </div>
    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <template v-if="count && stretch === 1">
      <p class="sum" aria-live="polite" data-testid="sum">{{ count.sum }}</p>
      <TallyBar :count="count" />
      <div class="two">
        <section aria-label="What to do about it">
          <h3 class="h6">
            {{ count.lacking ? 'What people do about it' : count.free ? 'Pockets to spare' : 'It comes out even' }}
          </h3>
          <ul v-if="count.moves.length" class="moves">
            <li v-for="(move, i) in count.moves" :key="i">
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
                <label :for="`leaf-${leaf.leafId}`" class="visually-hidden"
                  >Design of the leaf with {{ leaf.design }}</label
                >
                <select
                  :id="`leaf-${leaf.leafId}`"
                  class="form-select form-select-sm"
                  :value="leaf.protectorId"
                  @change="design(leaf.leafId, ($event.target as HTMLSelectElement).value)"
                >
                  <option v-for="p in album.protectors" :key="p.id" :value="p.id">{{ p.designName }}</option>
                </select>
                <span class="small visually-quiet">
                  {{
                    leaf.faces === 2
                      ? 'both faces'
                      : `one face; the other is ${leaf.otherSide ?? 'the title or end page'}`
                  }}, {{ leaf.placed }} {{ leaf.placed === 1 ? 'piece' : 'pieces' }} on it{{
                    leaf.mayChange ? '' : ', kept as it is'
                  }}
                </span>
              </div>
              <BButton v-if="leaf.mayGo" size="sm" variant="outline-dark" @click="remove(count, leaf.leafId)"
                >Take out</BButton
              >
            </li>
          </ol>
        </section>
      </div>
    </template>
    <template v-else-if="counts">
      <p class="sum" data-testid="sum">
        {{ totals.pieces }} pieces; {{ totals.pockets }} pockets;
        {{ totals.lacking ? `${totals.lacking} short` : 'none short' }} in {{ counts.length }} parts.
      </p>
      <table class="table table-sm">
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">The sum</th>
            <th scope="col">Leaves</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in counts" :key="c.unitId">
            <th scope="row">
              <RouterLink :to="{ name: 'desk', params: { albumId: album.id, unitId: c.unitId, tab: 'count' } }">{{
                c.title
              }}</RouterLink>
            </th>
            <td>
              <span :class="{ 'warning-chip': c.lacking }">{{ c.lacking ? '! ' : '' }}{{ c.sum }}</span>
            </td>
            <td class="small">{{ c.leaves.map((l) => l.design).join(' · ') }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <PageChoices v-if="counts" :album="album" :counts="counts" :from="unit.id" />
    <StockPanel :album="album" />
  </div>
</template>

<style scoped>
.count {
  flex: 1;
  overflow-y: auto;
  padding: 1rem 1.25rem 4rem;
}
.stretch {
  width: 5rem;
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
.moves,
.leaves {
  display: grid;
  gap: 0.5rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.moves li {
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
