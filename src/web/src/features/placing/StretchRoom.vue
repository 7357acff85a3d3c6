<script setup lang="ts">
import { computed, ref } from 'vue'
import { answer, api, type AlbumView, type StretchPlacingView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editUnit } from '../../shared/edits'
import { untilEnded } from '../../shared/jobs'
import { useNotices } from '../../shared/notices'
import { unitPlace } from '../../shared/places'
import ProgressLine from '../../shared/ProgressLine.vue'
import { counted } from '../../shared/words'
import SpreadCover from '../albums/SpreadCover.vue'
import { useFormulas } from '../counting/queries'
import { useSeries } from '../photos/queries'
import { useContactSheet } from './queries'

/** Several weeks or days in a row: filled by shared rules, seen as a contact sheet, the good ones locked. */
const props = defineProps<{ album: AlbumView; unitIds: string[] }>()
const { data: sheet } = useContactSheet(
  () => props.album.id,
  () => props.unitIds[0]!,
  () => props.unitIds.length,
)
const { data: series } = useSeries(() => props.album.id)
const { data: formulas } = useFormulas(() => props.album.id)
const { act } = useAct(() => props.album.id)
const notices = useNotices()

const titleFirst = ref(true)
const words = ref(0)
const pocketOf = ref<Record<string, string>>({})
const placing = ref<StretchPlacingView>()
const asking = ref(false)

/** The pockets of the first spread by their place on it, such as L3. */
const pockets = computed(() => [
  ...new Set(
    ['L', 'R'].flatMap((side) =>
      Array.from({ length: Math.ceil((sheet.value?.[0]?.pockets ?? 0) / 2) }, (_, i) => `${side}${i + 1}`),
    ),
  ),
])
function follow(id: string) {
  const formula = formulas.value?.find((f) => f.id === id)
  if (formula) {
    titleFirst.value = formula.title
    words.value = formula.words
  }
}

async function place(again: boolean) {
  asking.value = true
  try {
    const begun = await answer(
      api.POST('/api/albums/{albumId}/stretch-placings', {
        params: { path: { albumId: props.album.id } },
        body: {
          requestKey: crypto.randomUUID(),
          from: props.unitIds[0]!,
          count: sheet.value?.length ?? props.unitIds.length,
          again,
          rules: {
            titleFirst: titleFirst.value,
            words: words.value,
            series: Object.entries(pocketOf.value)
              .filter(([, pocket]) => pocket)
              .map(([seriesId, pocket]) => ({ seriesId, pocket })),
          },
        },
      }),
    )
    const now = await untilEnded(
      begun,
      () => answer(api.GET('/api/stretch-placings/{id}', { params: { path: { id: begun.id } } })),
      (far) => (placing.value = far),
    )
    if (now.problem) notices.say(now.problem)
    else if (now.state === 'cancelled') notices.done('Cancelled. Nothing was changed.')
    else await act(() => Promise.resolve({ done: now.done ?? 'Done', editId: now.editId }))
  } catch (error) {
    notices.refused(error)
  } finally {
    asking.value = false
    placing.value = undefined
  }
}
const stop = () => {
  const id = placing.value?.id
  return (
    id && answer(api.POST('/api/stretch-placings/{id}/cancel', { params: { path: { id } } })).catch(notices.refused)
  )
}

const lock = (unit: { id: string; revision: number }, locked: boolean) =>
  act(() => editUnit(unit.id, { kind: 'lockPockets', revision: unit.revision, locked }))
</script>

<template>
  <div class="room" data-testid="stretch">
    <section class="room-panel mb-3" aria-label="Shared rules">
      <h2 class="h5">Place {{ counted(sheet?.length ?? unitIds.length, 'spread') }} together</h2>
      <div class="d-flex flex-wrap gap-3 align-items-end">
        <div v-if="formulas?.length">
          <label for="stretch-formula" class="form-label mb-0">Rules of a formula</label>
          <BFormSelect id="stretch-formula" size="sm" model-value="" @update:model-value="follow(String($event ?? ''))">
            <option value="">choose one</option>
            <option v-for="f in formulas" :key="f.id" :value="f.id">{{ f.name }}</option>
          </BFormSelect>
        </div>
        <BFormCheckbox id="stretch-title" v-model="titleFirst">A title card first on each</BFormCheckbox>
        <div>
          <label for="stretch-words" class="form-label mb-0">Cards of words on each, at least</label>
          <BFormInput
            id="stretch-words"
            size="sm"
            type="number"
            min="0"
            max="20"
            :model-value="words"
            @update:model-value="words = Math.min(20, Math.max(0, Math.round(Number($event)) || 0))"
          />
        </div>
        <div v-for="s in series?.series ?? []" :key="s.id">
          <label :for="`stretch-${s.id}`" class="form-label mb-0">“{{ s.name }}” always in</label>
          <BFormSelect
            :id="`stretch-${s.id}`"
            size="sm"
            :model-value="pocketOf[s.id] ?? ''"
            @update:model-value="pocketOf = { ...pocketOf, [s.id]: String($event ?? '') }"
          >
            <option value="">any pocket</option>
            <option v-for="p in pockets" :key="p" :value="p">{{ p }}</option>
          </BFormSelect>
        </div>
      </div>
      <div class="d-flex flex-wrap gap-2 align-items-center mt-3">
        <BButton variant="primary" :disabled="asking" @click="place(false)">Fill what is open</BButton>
        <BButton variant="outline-dark" :disabled="asking" @click="place(true)">Place the rest again</BButton>
        <template v-if="placing">
          <ProgressLine
            class="flex-grow-1"
            label="Placing"
            :done="placing.unitsDone"
            :total="Math.max(1, placing.unitsTotal)"
          />
          <BButton size="sm" variant="outline-dark" @click="stop">Cancel</BButton>
        </template>
        <span v-else class="visually-quiet">Locked pieces stay. All of it is one step to undo.</span>
      </div>
    </section>
    <ul class="contact-sheet">
      <li v-for="u in sheet ?? []" :key="u.id">
        <RouterLink class="glance-spread" :to="unitPlace(album.id, u.id, 'place')" :aria-label="`Open ${u.title}`">
          <SpreadCover :unit-id="u.id" :title="u.title" :revision="u.revision" />
        </RouterLink>
        <p class="m-0">
          <strong>{{ u.title }}</strong> <span class="visually-quiet">{{ u.label }}</span>
        </p>
        <p class="m-0 small">
          {{ u.placed }} of {{ counted(u.pockets, 'pocket') }}, {{ u.locked }} locked<template v-if="u.loose"
            >; {{ counted(u.loose, 'photo') }} loose</template
          >
        </p>
        <div class="d-flex gap-2 mt-1">
          <BButton
            v-if="u.placed > u.locked"
            size="sm"
            variant="outline-dark"
            :aria-label="`Lock all of ${u.title}`"
            @click="lock(u, true)"
            >Lock all</BButton
          >
          <BButton
            v-if="u.locked"
            size="sm"
            variant="outline-dark"
            :aria-label="`Unlock all of ${u.title}`"
            @click="lock(u, false)"
            >Unlock all</BButton
          >
        </div>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.contact-sheet {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 1rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.glance-spread {
  display: flex;
  align-items: center;
  justify-content: center;
  height: 170px;
  margin-bottom: 0.3rem;
  padding: 8px;
  background: var(--mat);
}
</style>
