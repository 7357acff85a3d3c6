<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { reactive, ref } from 'vue'
import { answer, api, type AlbumView, type PaperOnHandView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { stocks, type Stock } from '../../shared/stocks'
import { useCatalog } from '../binder/queries'
import LeftoversList from './LeftoversList.vue'
import { usePapersOnHand } from './queries'

/** The paper drawer: what there is of each stock and size, and what is left of sheets. */
defineProps<{ album: AlbumView }>()
const { data: papers, error } = usePapersOnHand()
const { data: catalog } = useCatalog()
const client = useQueryClient()
const notices = useNotices()
const busy = ref(false)
const entry = reactive({
  stock: 'whiteCard' as Stock,
  paperKey: 'letter',
  count: '',
  price: '',
  hasDirection: false,
  bothSides: true,
  usedBeside: false,
})

async function act(call: () => Promise<unknown>, done: string) {
  if (busy.value) return
  busy.value = true
  try {
    await call()
    await client.invalidateQueries({ queryKey: ['papersOnHand'] })
    await client.invalidateQueries({ queryKey: ['of'] })
    notices.done(done)
  } catch (refused) {
    notices.refused(refused)
  } finally {
    busy.value = false
  }
}
const save = () =>
  act(
    () =>
      answer(
        api.POST('/api/papers-on-hand', {
          body: {
            ...entry,
            count: entry.count === '' ? null : Number(entry.count),
            price: entry.price === '' ? null : Number(entry.price.replace(',', '.')),
          },
        }),
      ),
    'Kept in the drawer.',
  )
const remove = (paper: PaperOnHandView) =>
  act(
    () => answer(api.DELETE('/api/papers-on-hand/{id}', { params: { path: { id: paper.id } } })),
    `Removed ${paper.stockName}, ${paper.paperName}.`,
  )
const facts = ({ entry: e }: PaperOnHandView) =>
  [
    e.count == null ? 'not counted' : `${e.count} sheets`,
    e.price == null ? '' : `${e.price} a sheet`,
    e.hasDirection ? 'has a direction' : '',
    e.bothSides ? '' : 'one side only',
    e.usedBeside ? 'used beside the loaded paper' : '',
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <div class="room" data-testid="papers">
    <section class="room-panel mb-3">
      <h2 class="h5">Papers in the drawer</h2>
      <p>
        Counted papers go down as you print. With a price for all of them, sheets are chosen by what they cost; without,
        by their area.
      </p>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <ul v-if="papers?.length" aria-label="Papers in the drawer">
        <li v-for="paper in papers" :key="paper.id" class="mb-1">
          <strong>{{ paper.stockName }}</strong>, {{ paper.paperName }}: {{ facts(paper) }}
          <BButton
            size="sm"
            variant="outline-dark"
            class="ms-2"
            :disabled="busy"
            :aria-label="`Remove ${paper.stockName}, ${paper.paperName}`"
            @click="remove(paper)"
            >Remove</BButton
          >
        </li>
      </ul>
      <form class="entry" @submit.prevent="save">
        <div>
          <label for="drawer-stock" class="form-label mb-0">Stock</label>
          <BFormSelect id="drawer-stock" v-model="entry.stock" size="sm">
            <option v-for="s in stocks" :key="s.stock" :value="s.stock">{{ s.name }}</option>
          </BFormSelect>
        </div>
        <div>
          <label for="drawer-paper" class="form-label mb-0">Size</label>
          <BFormSelect id="drawer-paper" v-model="entry.paperKey" size="sm">
            <option v-for="p in catalog?.papers" :key="p.key" :value="p.key">{{ p.name }} ({{ p.sizeLabel }})</option>
          </BFormSelect>
        </div>
        <div>
          <label for="drawer-count" class="form-label mb-0">Sheets</label>
          <input
            id="drawer-count"
            v-model="entry.count"
            class="form-control form-control-sm"
            inputmode="numeric"
            pattern="[0-9]*"
          />
        </div>
        <div>
          <label for="drawer-price" class="form-label mb-0">Price of a sheet</label>
          <input id="drawer-price" v-model="entry.price" class="form-control form-control-sm" inputmode="decimal" />
        </div>
        <BFormCheckbox v-model="entry.hasDirection">Grain or a pattern with a direction</BFormCheckbox>
        <BFormCheckbox v-model="entry.bothSides">Both sides can be printed</BFormCheckbox>
        <BFormCheckbox v-model="entry.usedBeside">Use it beside the loaded paper</BFormCheckbox>
        <BButton type="submit" size="sm" variant="primary" :disabled="busy">Keep in the drawer</BButton>
      </form>
    </section>
    <section class="room-panel">
      <h2 class="h5">Left of other sheets</h2>
      <p>The next print on this stock starts on them. A sheet goes in as it went in before.</p>
      <LeftoversList :measures="album.measures" />
    </section>
  </div>
</template>

<style scoped>
.entry {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: flex-end;
}
.entry input:not([type='checkbox']) {
  width: 7rem;
}
</style>
