<script setup lang="ts">
import { computed } from 'vue'
import { Refusal, type UnitView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum, editUnit } from '../../shared/edits'
import { useAlbumWords } from '../words/queries'
import { useColours } from './queries'

/** How colourful the spread is, and ways to calm it, each painted beside what there is now. */
const props = defineProps<{ unit: UnitView; spread: number }>()
const open = defineModel<boolean>({ required: true })
const { data, error, isFetching } = useColours(
  () => props.unit,
  () => props.spread,
  open,
)
const { data: words } = useAlbumWords(() => props.unit.albumId)
const { act } = useAct(() => props.unit.albumId)

/** The words of the scale of Hasler and Süsstrunk, each from its number on. */
const scale = [
  [109, 'extremely colourful'],
  [82, 'highly colourful'],
  [59, 'quite colourful'],
  [45, 'averagely colourful'],
  [33, 'moderately colourful'],
  [15, 'slightly colourful'],
  [0, 'not colourful'],
] as const
const inWords = (value: number) => scale.find(([from]) => value >= from)![1]
const limits = [
  { value: 33, name: 'moderately colourful' },
  { value: 45, name: 'averagely colourful' },
  { value: 59, name: 'quite colourful' },
  { value: 82, name: 'highly colourful' },
]
const limit = computed(() => String(words.value?.mostColourful ?? ''))

const limitTo = (value: string) =>
  act(() =>
    editAlbum(props.unit.albumId, {
      kind: 'limitColour',
      revision: words.value!.revision,
      mostColourful: value === '' ? null : Number(value),
    }),
  )
async function use(way: NonNullable<typeof data.value>['ways'][number]) {
  if (await act(() => editUnit(props.unit.id, way.edit))) open.value = false
}
</script>

<template>
  <BModal v-model="open" size="xl" title="The colours of this spread" title-tag="h2" title-class="h5" no-footer>
    <p v-if="isFetching" role="status">Looking at the colours …</p>
    <p v-else-if="error" class="warning-chip">
      ! {{ error instanceof Refusal ? error.message : 'The colours could not be read. Close this and try again.' }}
    </p>
    <template v-else-if="data">
      <div class="d-flex flex-wrap gap-3 align-items-end mb-3">
        <p class="m-0 flex-grow-1" data-testid="colourfulness">
          This spread is <strong>{{ inWords(data.colourfulness) }}</strong> ({{ Math.round(data.colourfulness) }}).
        </p>
        <div>
          <label for="colour-limit" class="form-label mb-0">Speak up above</label>
          <BFormSelect
            id="colour-limit"
            size="sm"
            :model-value="limit"
            @update:model-value="limitTo(String($event ?? ''))"
          >
            <option v-for="l in limits" :key="l.value" :value="String(l.value)">{{ l.name }} ({{ l.value }})</option>
            <option value="">never</option>
          </BFormSelect>
        </div>
      </div>
      <ol class="ways">
        <li>
          <img :src="data.picture" alt="The spread as it is now" />
          <p class="m-0"><strong>Now</strong></p>
        </li>
        <li v-for="way in data.ways" :key="way.words">
          <img :src="way.picture" :alt="`The spread with ${way.words}`" />
          <p class="m-0">
            With {{ way.words }} <span class="visually-quiet">· {{ Math.round(way.after) }}</span>
          </p>
          <BButton size="sm" variant="outline-dark" :aria-label="`Use this: ${way.words}`" @click="use(way)"
            >Use this</BButton
          >
        </li>
      </ol>
      <p v-if="data.ways.length === 0">Nothing here would make it calmer: its colours are those of its words.</p>
    </template>
  </BModal>
</template>
