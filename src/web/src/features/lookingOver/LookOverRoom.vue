<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AlbumFinding, AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum, editUnit } from '../../shared/edits'
import { albumPlace, unitPlace } from '../../shared/places'
import { counted } from '../../shared/words'
import { useAlbumWords } from '../words/queries'
import { useLookOver } from './queries'
import { ruleNames } from './rules'

/** The slow look before anything is printed: each finding with its place, its reason and what mends it. */
const props = defineProps<{ album: AlbumView; unitIds: string[]; whole: boolean }>()

const { data, isFetching, error } = useLookOver(
  () => props.album.id,
  () => (props.whole ? {} : { from: props.unitIds[0], until: props.unitIds[props.unitIds.length - 1] }),
)
const { data: words } = useAlbumWords(() => props.album.id)
const { act } = useAct(() => props.album.id)

/** One edit at a time: the next one needs what this one leaves. */
const busy = ref(false)
async function one(edit: () => Promise<unknown>) {
  busy.value = true
  try {
    await edit()
  } finally {
    busy.value = false
  }
}

const rule = ref<AlbumFinding['rule'] | ''>('')
const withAccepted = ref(false)
const open = computed(() => (data.value ?? []).filter((f) => withAccepted.value || !f.accepted))
const rules = computed(() => [...new Set(open.value.map((f) => f.rule))])
const shown = computed(() => open.value.filter((f) => !rule.value || f.rule === rule.value))
const accepted = computed(() => (data.value ?? []).filter((f) => f.accepted).length)

const mend = (finding: AlbumFinding) => one(() => act(() => editUnit(finding.unitId!, finding.mend!)))
/** The room where what no edit mends is mended. */
const opens = (finding: AlbumFinding) =>
  finding.opens === 'sheets' && finding.unitId
    ? unitPlace(props.album.id, finding.unitId, 'print', 'sheets')
    : finding.opens === 'stories' && finding.unitId
      ? unitPlace(props.album.id, finding.unitId, 'tell', 'cards')
      : albumPlace(props.album.id, 'print', 'printers')
const accept = (finding: AlbumFinding, always: boolean) =>
  one(() =>
    act(() =>
      editAlbum(props.album.id, { kind: 'acceptFinding', revision: words.value!.revision, key: finding.key, always }),
    ),
  )
const showAll = () =>
  one(() => act(() => editAlbum(props.album.id, { kind: 'showAllFindings', revision: words.value!.revision })))
</script>

<template>
  <div class="room" data-testid="look-over">
    <div class="d-flex flex-wrap gap-3 align-items-end mb-3">
      <h2 class="h5 mb-0">
        <span role="status">{{
          !data ? 'Looking …' : open.length === 0 ? 'Nothing to mend' : counted(shown.length, 'finding')
        }}</span>
      </h2>
      <div v-if="rules.length > 1">
        <label for="finding-rule" class="form-label mb-0">Show</label>
        <BFormSelect id="finding-rule" v-model="rule" size="sm">
          <option value="">everything</option>
          <option v-for="r in rules" :key="r" :value="r">{{ ruleNames[r] }}</option>
        </BFormSelect>
      </div>
      <template v-if="accepted">
        <BFormCheckbox v-model="withAccepted">With {{ counted(accepted, 'accepted finding') }}</BFormCheckbox>
        <BButton size="sm" variant="outline-dark" :disabled="busy" @click="showAll">Show all again</BButton>
      </template>
    </div>
    <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
    <p v-else-if="data && open.length === 0" class="room-panel">
      No pocket is empty by mistake, every print is sharp, and nothing that must stay is cropped. Print when you like.
    </p>
    <ul class="findings" :aria-busy="isFetching">
      <li v-for="f in shown" :key="f.key" class="room-panel" :class="`weight-${f.weight}`" data-testid="finding">
        <div class="flex-grow-1">
          <p class="mb-0">
            <RouterLink v-if="f.unitId" :to="unitPlace(album.id, f.unitId, 'place')">{{ f.where }}</RouterLink>
            <strong v-else>{{ f.where }}</strong>
            <span class="visually-quiet"> · {{ ruleNames[f.rule] }}</span>
          </p>
          <p class="mb-0">{{ f.words }}</p>
        </div>
        <div class="d-flex flex-wrap gap-2">
          <BButton
            v-if="f.mend && f.mendLabel && !f.accepted"
            size="sm"
            variant="primary"
            :disabled="busy"
            :aria-label="`${f.mendLabel}: ${f.where}`"
            @click="mend(f)"
            >{{ f.mendLabel }}</BButton
          >
          <BButton
            v-else-if="f.opens && !f.accepted"
            size="sm"
            variant="primary"
            :to="opens(f)"
            :aria-label="`${f.mendLabel}: ${f.where}`"
            >{{ f.mendLabel }}</BButton
          >
          <template v-if="!f.accepted && words">
            <BButton
              size="sm"
              variant="outline-dark"
              :disabled="busy"
              :aria-label="`Accept: ${f.where}, ${f.words}`"
              @click="accept(f, false)"
              >Accept</BButton
            >
            <BButton
              size="sm"
              variant="link"
              :disabled="busy"
              :aria-label="`Always accept these: ${ruleNames[f.rule]}`"
              @click="accept(f, true)"
              >Always accept these</BButton
            >
          </template>
          <span v-else-if="f.accepted" class="visually-quiet">accepted</span>
        </div>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.findings {
  display: grid;
  gap: 0.5rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.findings li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
  padding: 0.6rem 1rem;
  border-left: 4px solid var(--line);
}
.findings li.weight-3 {
  border-left-color: var(--zest);
}
.findings li.weight-2 {
  border-left-color: var(--zest-bright);
}
</style>
