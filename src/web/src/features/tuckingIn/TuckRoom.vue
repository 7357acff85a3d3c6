<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type AlbumView, type TuckPiece, type TuckView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { counted } from '../../shared/words'
import LeafMap from './LeafMap.vue'
import { useAssembly } from './queries'
import { cutsOf, nextWords, piecesOf, sheetsToCut, tickOf } from './tuck'

/** The table: each leaf with both sides, what is cut, what lies in its pocket, what comes next. */
const props = defineProps<{ album: AlbumView; unitIds: string[] }>()
const notices = useNotices()
const client = useQueryClient()
const { data, error, refetch } = useAssembly(
  () => props.album.id,
  () => props.unitIds[0]!,
  () => props.unitIds.length,
)

const pieces = computed(() => piecesOf(data.value?.leaves ?? []))
const left = computed(() => pieces.value.filter((p) => p.next !== 'done'))
const onlyLeft = ref(false)
const leaves = computed(() =>
  (data.value?.leaves ?? []).filter((l) => !onlyLeft.value || piecesOf([l]).some((p) => p.next !== 'done')),
)
const toCut = computed(() => pieces.value.filter((p) => p.next === 'cut'))
const sheets = computed(() => sheetsToCut(pieces.value))
const by = (next: TuckPiece['next']) => pieces.value.filter((p) => p.next === next).length
const sums = computed(() =>
  (
    [
      ['print', 'to print'],
      ['cut', 'to cut'],
      ['takeOutFirst', 'to take out first'],
      ['tuckIn', 'to tuck in'],
      ['done', 'done'],
    ] as const
  )
    .filter(([key]) => by(key) > 0)
    .map(([key, words]) => `${by(key)} ${words}`)
    .join(', '),
)

/** One at a time: the next tick stands on what this one leaves. */
const busy = ref(false)
async function tick(list: TuckPiece[], step: 'cut' | 'tuckIn', done: boolean) {
  if (busy.value || list.length === 0) return
  busy.value = true
  try {
    await answer(
      api.POST('/api/albums/{albumId}/ticks', {
        params: { path: { albumId: props.album.id } },
        body: { pieceIds: list.map((p) => p.pieceId), step, done },
      }),
    )
    await refetch()
  } catch (refused) {
    notices.refused(refused)
  } finally {
    busy.value = false
  }
}

const again = ref('')
const why = ref<'lost' | 'smudged' | 'miscut'>('miscut')
const spoilable = computed(() => pieces.value.filter((p) => p.isPrinted && p.next !== 'print'))
async function printAgain() {
  const piece = spoilable.value.find((p) => p.pieceId === again.value)
  if (busy.value || !piece) return
  busy.value = true
  try {
    await answer(
      api.POST('/api/albums/{albumId}/spoilt', {
        params: { path: { albumId: props.album.id } },
        body: { pieceIds: [piece.pieceId], why: why.value },
      }),
    )
    await client.invalidateQueries({ queryKey: ['of', props.album.id] })
    notices.done(`${piece.number} goes on the next sheet.`)
    again.value = ''
    await refetch()
  } catch (refused) {
    notices.refused(refused)
  } finally {
    busy.value = false
  }
}

/** The button of a piece does what comes next, and takes the last step back when all is done. */
function advance(piece: TuckPiece) {
  const what = tickOf(piece)
  if (what) void tick([piece], what.step, what.done)
  else notices.say(`${piece.number} is to be printed first: open Print.`)
}
const leafPieces = (leaf: TuckView['leaves'][number]) => piecesOf([leaf]).filter((p) => p.next === 'tuckIn')
</script>

<template>
  <div class="room" data-testid="tuck">
    <section class="room-panel mb-3">
      <h2 class="h5 mb-1">
        <span role="status">{{
          !data
            ? 'Looking …'
            : pieces.length === 0
              ? 'Nothing lies in a pocket yet'
              : left.length === 0
                ? 'Everything is in its pocket'
                : `${counted(left.length, 'piece')} left`
        }}</span>
      </h2>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <p v-if="pieces.length" class="visually-quiet mb-2">{{ sums }}</p>
      <p v-if="data && pieces.length === 0" class="mb-0">Place some pieces, print them, then come back with them.</p>
      <div class="d-flex flex-wrap gap-3 align-items-center">
        <BButton v-if="toCut.length" size="sm" variant="primary" :disabled="busy" @click="tick(toCut, 'cut', true)"
          >{{ counted(cutsOf(toCut), 'piece') }} cut: tick off</BButton
        >
        <template v-if="sheets.length > 1">
          <BButton
            v-for="sheet in sheets"
            :key="sheet.key"
            size="sm"
            variant="outline-dark"
            :disabled="busy"
            :title="sheet.pieces.map((p) => p.number).join(', ')"
            @click="tick(sheet.pieces, 'cut', true)"
            >{{ sheet.name }} cut: {{ counted(cutsOf(sheet.pieces), 'piece') }}</BButton
          >
        </template>
        <BFormCheckbox v-if="pieces.length" id="only-left" v-model="onlyLeft"
          >Only leaves with something left</BFormCheckbox
        >
      </div>
      <form v-if="spoilable.length" class="d-flex flex-wrap gap-2 align-items-end mt-2" @submit.prevent="printAgain">
        <div>
          <label for="again" class="form-label mb-0">Print again</label>
          <BFormSelect id="again" v-model="again" size="sm">
            <option value="">choose a piece</option>
            <option v-for="p in spoilable" :key="p.pieceId" :value="p.pieceId">{{ p.number }}: {{ p.title }}</option>
          </BFormSelect>
        </div>
        <div>
          <label for="again-why" class="form-label mb-0">Reason</label>
          <BFormSelect id="again-why" v-model="why" size="sm">
            <option value="miscut">cut wrong</option>
            <option value="smudged">smudged</option>
            <option value="lost">lost</option>
          </BFormSelect>
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy || !again"
          >Put on the next sheet</BButton
        >
      </form>
      <template v-if="data?.cautions.length">
        <p v-for="caution in data.cautions" :key="caution" class="small mb-1 mt-2">{{ caution }}</p>
      </template>
    </section>
    <section
      v-for="leaf in leaves"
      :key="leaf.leafId"
      class="room-panel mb-3"
      :aria-label="`Leaf ${leaf.number}, ${leaf.name}`"
    >
      <div class="d-flex flex-wrap gap-3 align-items-center mb-2">
        <h3 class="h6 m-0">
          Leaf {{ leaf.number }} <span class="visually-quiet fw-normal">{{ leaf.name }}</span>
        </h3>
        <BButton
          v-if="leafPieces(leaf).length > 1"
          size="sm"
          variant="outline-dark"
          :disabled="busy"
          :aria-label="`All of leaf ${leaf.number} tucked in`"
          @click="tick(leafPieces(leaf), 'tuckIn', true)"
          >All of leaf {{ leaf.number }} tucked in</BButton
        >
      </div>
      <div class="faces">
        <LeafMap v-for="face in leaf.faces" :key="face.side" :face="face" :busy="busy" @advance="advance" />
      </div>
      <ul class="with">
        <li
          v-for="piece in piecesOf([leaf]).filter(
            (p) => p.steps.length || p.alsoCut.length || p.next === 'takeOutFirst',
          )"
          :key="piece.pieceId"
        >
          <strong>{{ piece.number }}</strong>
          <template v-if="piece.next === 'takeOutFirst'"> take the old one out first.</template>
          <template v-if="piece.alsoCut.length"> also cut {{ piece.alsoCut.join(' and ') }}.</template>
          {{ piece.steps.join(', then ') }}
        </li>
      </ul>
      <div v-if="piecesOf([leaf]).some((p) => p.isWith)" class="d-flex flex-wrap gap-2">
        <BButton
          v-for="piece in piecesOf([leaf]).filter((p) => p.isWith)"
          :key="piece.pieceId"
          size="sm"
          variant="outline-dark"
          :disabled="busy"
          :aria-pressed="piece.next === 'done'"
          @click="advance(piece)"
          >{{ piece.number }}: {{ nextWords[piece.next] }}</BButton
        >
      </div>
    </section>
  </div>
</template>

<style scoped>
.faces {
  display: flex;
  flex-wrap: wrap;
  gap: 1.5rem;
}
.with {
  margin: 0.5rem 0;
  padding-left: 1.1rem;
}
</style>
