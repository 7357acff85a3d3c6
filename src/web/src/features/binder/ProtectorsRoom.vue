<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { AlbumView, LeafMake, ProtectorView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useCatalog, useDesigns } from './queries'
import ProtectorMeasures from './ProtectorMeasures.vue'

/** The page protectors that the album uses, how many of each are on hand, and what each measures. */
const props = defineProps<{ album: AlbumView }>()
const { act } = useAct(() => props.album.id)

const { data: catalog } = useCatalog()
const { data: own } = useDesigns()
const wanted = ref('')
const measuring = ref('')
const sheet = reactive({ kind: 'sheet' as LeafMake['kind'], size: '', fold: '' })

/** Designs that the album does not use yet: whole pages first, smaller ones as inserts. */
const others = computed(() =>
  [...(own.value ?? []).map((d) => d.design), ...(catalog.value?.designs ?? [])]
    .filter(
      (d) =>
        d.bodyWidth <= props.album.body.width &&
        d.bodyHeight <= props.album.body.height &&
        !props.album.protectors.some((p) => p.designKey === d.key && !p.gone),
    )
    .map((d) => ({ ...d, insert: d.bodyWidth < props.album.body.width || d.bodyHeight < props.album.body.height }))
    .sort((a, b) => Number(a.insert) - Number(b.insert)),
)

const use = (make: LeafMake) =>
  act(() => editAlbum(props.album.id, { kind: 'useProtector', revision: props.album.revision, make }))

async function useDesign() {
  if (await use({ kind: 'pockets', designKey: wanted.value })) wanted.value = ''
}

const of = (protector: ProtectorView) => ({ protectorId: protector.id, revision: protector.revision })
const giveUp = (protector: ProtectorView) =>
  act(() => editAlbum(props.album.id, { kind: 'giveUpProtector', ...of(protector) }))

const countOnHand = (protector: ProtectorView, text: string) =>
  act(() =>
    editAlbum(props.album.id, {
      kind: 'countOnHand',
      ...of(protector),
      onHand: text.trim() === '' ? null : Number(text),
    }),
  )
</script>

<template>
  <div class="room">
    <h2 class="h5">Page protectors on hand</h2>
    <p class="form-text">
      Enter how many leaves of each you own, or leave the number empty if you never run out. When pages are chosen, you
      are told what you are short of. A pocket is a little larger or smaller than its name says: measure one of each
      size, width first, and pieces are cut to fit.
    </p>
    <table class="table table-sm mb-0 owned-table">
      <thead>
        <tr>
          <th scope="col">Page protector</th>
          <th scope="col">Pockets on each face</th>
          <th scope="col">In this album</th>
          <th scope="col">On hand</th>
          <th scope="col"><span class="visually-hidden">Measure or stop using</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in album.protectors" :key="p.id">
          <th scope="row">
            {{ p.designName }}
            <span v-if="p.kind === 'pockets' && p.body !== album.protectors[0]?.body" class="small visually-quiet"
              >insert of {{ p.body }}</span
            >
          </th>
          <td>{{ p.pockets || '–' }}</td>
          <td>{{ p.inUse }}</td>
          <td>
            <input
              type="number"
              min="0"
              class="form-control form-control-sm owned"
              :aria-label="`Leaves of ${p.designName} on hand`"
              :value="p.onHand ?? ''"
              @change="countOnHand(p, ($event.target as HTMLInputElement).value)"
            />
          </td>
          <td class="text-nowrap">
            <BButton
              size="sm"
              variant="outline-dark"
              :aria-label="`Measure ${p.designName}`"
              :aria-expanded="measuring === p.id"
              @click="measuring = measuring === p.id ? '' : p.id"
              >Measure</BButton
            >
            <BButton
              v-if="!p.gone && album.protectors.filter((other) => !other.gone).length > 1"
              size="sm"
              variant="outline-dark"
              class="ms-1"
              :aria-label="`Stop using ${p.designName}`"
              @click="giveUp(p)"
              >Stop using</BButton
            >
            <span v-else-if="p.gone" class="small visually-quiet ms-1">no longer used</span>
          </td>
        </tr>
      </tbody>
    </table>
    <template v-for="p in album.protectors" :key="p.id">
      <ProtectorMeasures v-if="measuring === p.id" :album="album" :protector="p" class="border rounded p-3 my-2" />
    </template>
    <div class="d-flex flex-wrap gap-4 mt-2">
      <form v-if="others.length" class="d-flex gap-2 align-items-end" @submit.prevent="useDesign">
        <div>
          <label for="other-design" class="form-label mb-0">Add a page design</label>
          <BFormSelect id="other-design" v-model="wanted" size="sm" required>
            <option value="" disabled>Choose one</option>
            <option v-for="d in others" :key="d.key" :value="d.key">
              {{ d.name }}{{ d.insert ? `, insert of ${d.body}` : '' }}
            </option>
          </BFormSelect>
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="!wanted">Add</BButton>
      </form>
      <form
        class="d-flex flex-wrap gap-2 align-items-end"
        @submit.prevent="use({ kind: sheet.kind, size: sheet.size || null, fold: sheet.fold || null })"
      >
        <div>
          <label for="make-kind" class="form-label mb-0">Add another kind of leaf</label>
          <BFormSelect id="make-kind" v-model="sheet.kind" size="sm">
            <option value="sheet">a page without pockets</option>
            <option value="foldOut">a fold-out</option>
            <option value="divider">a clear divider</option>
            <option value="envelope">an envelope for keepsakes</option>
          </BFormSelect>
        </div>
        <div v-if="sheet.kind === 'sheet' || sheet.kind === 'foldOut'">
          <label for="make-size" class="form-label mb-0">Sheet</label>
          <input
            id="make-size"
            v-model="sheet.size"
            class="form-control form-control-sm size"
            :placeholder="sheet.kind === 'sheet' ? 'as the protectors' : '6x8'"
          />
        </div>
        <div v-if="sheet.kind === 'foldOut'">
          <label for="make-fold" class="form-label mb-0">Fold from the ring edge</label>
          <input id="make-fold" v-model="sheet.fold" class="form-control form-control-sm size" placeholder="3 1/2 in" />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark">Add</BButton>
      </form>
    </div>
  </div>
</template>

<style scoped>
.owned-table {
  max-width: 56rem;
}
.owned {
  width: 6rem;
}
.size {
  width: 9rem;
}
</style>
