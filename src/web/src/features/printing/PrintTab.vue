<script setup lang="ts">
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { useLocalStorage, useTimeoutFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import {
  answer,
  api,
  type AlbumView,
  type PrintJobView,
  type PrintOptions,
  type SheetView,
  type UnitView,
} from '../../api/client'
import { useNotices } from '../../shared/notices'
import { keys } from '../../shared/queries'
import { counted } from '../../shared/words'
import { useCatalog } from '../binder/queries'
import { usePrinters } from './queries'
import PrintProgress from './PrintProgress.vue'
import SheetWishes from './SheetWishes.vue'

const props = defineProps<{
  unit: UnitView
  /** The weeks or days to print, in their order, the open one first. */
  unitIds: string[]
  album: AlbumView
}>()
const { data: catalog } = useCatalog()
const notices = useNotices()
const client = useQueryClient()

interface Setup {
  paper: string
  margin: string
  gap: string
}
const storageKey = 'zesty.printer'
const metric = computed(() => props.album.measures === 'millimetres')

function readSetup(): Setup {
  const usual = metric.value
    ? { paper: 'a4', margin: '5 mm', gap: '0' }
    : { paper: 'letter', margin: '1/4 in', gap: '0' }
  try {
    return { ...usual, ...(JSON.parse(localStorage.getItem(storageKey) ?? '{}') as Partial<Setup>) }
  } catch {
    return usual
  }
}

const setup = ref(readSetup())
/** What is printed: what is due, everything, or pieces one chooses. */
const choice = ref<'due' | 'all' | 'chosen'>('due')
const chosen = ref<string[]>([])
const ownSize = ref('')
const { data: printers } = usePrinters()
const printer = useLocalStorage('zesty.printerId', '')
const wishes = useLocalStorage<PrintOptions>('zesty.sheets', {
  unitPerSheet: false,
  numbersOnBack: false,
  bleed: null,
  cropMarks: false,
  safeEdge: null,
  tiles: false,
  useLeftovers: true,
  copies: 1,
  only: null,
})
const isOwn = computed(() => setup.value.paper.startsWith('own'))
const standingWords = {
  neverPrinted: 'never printed',
  changed: 'changed since',
  printed: 'printed',
  spoilt: 'to print again',
} as const
const standing = computed(() => plan.data.value?.standing ?? [])
const due = computed(() => standing.value.filter((p) => p.standing !== 'printed').length)

/** What every question about sheets asks for. */
const asked = computed(() => ({
  unitIds: props.unitIds,
  paperKey: setup.value.paper,
  margin: setup.value.margin,
  gap: setup.value.gap,
  choice: choice.value,
  pieceIds: choice.value === 'chosen' ? chosen.value : [],
  printerId: printer.value || null,
  options: wishes.value,
}))
const despiteDoubts = ref(false)
const job = ref<PrintJobView | null>(null)

const plan = useQuery({
  queryKey: computed(() => keys.of(props.album.id, 'plan', props.unit.revision, asked.value)),
  queryFn: () =>
    answer(api.POST('/api/print-plans', { body: { requestKey: 'plan', despiteDoubts: false, ...asked.value } })),
  placeholderData: keepPreviousData,
  retry: false,
  staleTime: 0,
})

const single = computed(() => props.unitIds.length === 1)
const titleOf = (id: string | undefined) => props.album.units.find((u) => u.id === id)?.title ?? ''
const heading = computed(() =>
  single.value
    ? `Sheets for ${props.unit.inSentence}`
    : `Sheets for ${titleOf(props.unitIds[0])} to ${titleOf(props.unitIds.at(-1))}`,
)
const sheetUrl = (number: number, file = '') =>
  `/api/units/${props.unit.id}/sheets/${number}${file}?${new URLSearchParams({
    paper: setup.value.paper,
    margin: setup.value.margin,
    gap: setup.value.gap,
    choice: choice.value,
    ...(printer.value ? { printer: printer.value } : {}),
    ...Object.fromEntries(
      Object.entries(wishes.value)
        .filter(([, wish]) => wish !== null)
        .map(([name, wish]) => [name, String(wish)]),
    ),
    v: String(props.unit.revision),
  })}${asked.value.pieceIds.map((id) => `&piece=${id}`).join('')}`
const sideWords = { only: '', front: 'front', back: 'back', numbers: 'numbers on the back' } as const
const caption = (sheet: SheetView) =>
  [
    `Sheet ${sheet.number}`,
    sheet.stockName,
    sheet.isLeftover ? `what is left of another sheet (${sheet.paperName})` : sheet.paperName,
    sideWords[sheet.side],
  ]
    .filter(Boolean)
    .join(' · ')

function keep(part: Partial<Setup>) {
  setup.value = { ...setup.value, ...part }
  localStorage.setItem(storageKey, JSON.stringify(setup.value))
}
const changed = (field: keyof Setup, event: Event) => keep({ [field]: (event.target as HTMLInputElement).value })

const choices = computed(() => [
  { key: 'due' as const, name: `What is due (${due.value})` },
  { key: 'all' as const, name: `Everything (${standing.value.length})` },
  { key: 'chosen' as const, name: 'Pieces I choose' },
])

function choosePaper(event: Event) {
  const key = (event.target as HTMLSelectElement).value
  keep({ paper: key === 'own' ? `own ${metric.value ? '200x200 mm' : '8x8 in'}` : key })
}
function ownPaper(event: Event) {
  ownSize.value = (event.target as HTMLInputElement).value
  keep({ paper: `own ${ownSize.value.trim()}` })
}

/** What the job prints, to be ticked off once it is cut. */
const toCut = ref<string[]>([])
async function allCut() {
  try {
    await answer(
      api.POST('/api/albums/{albumId}/ticks', {
        params: { path: { albumId: props.album.id } },
        body: { pieceIds: toCut.value, step: 'cut', done: true },
      }),
    )
    await client.invalidateQueries({ queryKey: ['of', props.album.id] })
    notices.done(`${counted(toCut.value.length, 'piece')} ticked off as cut.`)
    toCut.value = []
  } catch (error) {
    notices.refused(error)
  }
}

async function print() {
  toCut.value = standing.value.filter((p) => p.onSheets).map((p) => p.pieceId)
  try {
    job.value = await answer(
      api.POST('/api/print-jobs', {
        body: {
          requestKey: crypto.randomUUID(),
          despiteDoubts: despiteDoubts.value,
          ...asked.value,
        },
      }),
    )
    poll()
  } catch (error) {
    notices.refused(error)
  }
}

const { start: poll } = useTimeoutFn(
  async () => {
    if (!job.value) return
    try {
      job.value = await answer(api.GET('/api/print-jobs/{id}', { params: { path: { id: job.value.id } } }))
      if (job.value.state === 'waiting' || job.value.state === 'running') poll()
      // What was due is printed now.
      else if (job.value.state === 'done') await client.invalidateQueries({ queryKey: ['of', props.album.id] })
    } catch (error) {
      notices.refused(error)
    }
  },
  300,
  { immediate: false },
)

async function cancel() {
  if (!job.value) return
  try {
    await answer(api.POST('/api/print-jobs/{id}/cancel', { params: { path: { id: job.value.id } } }))
  } catch (error) {
    notices.refused(error)
  }
}
</script>

<template>
  <div class="print">
    <section class="settings panel" aria-label="Printer">
      <h2 class="h5">{{ heading }}</h2>
      <fieldset class="mb-2">
        <legend class="form-label fs-6 mb-0">What is printed</legend>
        <label v-for="c in choices" :key="c.key" class="form-check mb-0">
          <input v-model="choice" type="radio" class="form-check-input" name="print-choice" :value="c.key" />
          <span class="form-check-label">{{ c.name }}</span>
        </label>
      </fieldset>
      <ul v-if="choice === 'chosen'" class="pieces" aria-label="Pieces to choose">
        <li v-for="p in standing" :key="p.pieceId">
          <label class="form-check mb-0">
            <input v-model="chosen" type="checkbox" class="form-check-input" :value="p.pieceId" />
            <span class="form-check-label"
              >{{ p.number }} <span class="visually-quiet">{{ standingWords[p.standing] }}</span></span
            >
          </label>
        </li>
      </ul>
      <label for="paper" class="form-label">Paper</label>
      <select id="paper" class="form-select" :value="isOwn ? 'own' : setup.paper" @change="choosePaper">
        <option v-for="p in catalog?.papers" :key="p.key" :value="p.key">{{ p.name }} ({{ p.sizeLabel }})</option>
        <option value="own">A size of your own</option>
      </select>
      <template v-if="isOwn">
        <label for="own-paper" class="form-label mt-1">Width × height</label>
        <input
          id="own-paper"
          class="form-control"
          :value="ownSize || setup.paper.slice(4)"
          placeholder="8x8 in"
          @change="ownPaper"
        />
      </template>
      <template v-if="printers?.length">
        <label for="printer" class="form-label mt-1">Printer</label>
        <select id="printer" v-model="printer" class="form-select">
          <option value="">any, at 100 %</option>
          <option v-for="p in printers" :key="p.id" :value="p.id">
            {{ p.name }}{{ p.makesUp ? `, made up for ${p.scaleXPercent} × ${p.scaleYPercent} %` : '' }}
          </option>
        </select>
      </template>
      <div class="row g-2 mt-1">
        <div class="col">
          <label for="margin" class="form-label">Printer's margin</label>
          <input id="margin" class="form-control" :value="setup.margin" @change="changed('margin', $event)" />
        </div>
        <div class="col">
          <label for="gap" class="form-label">Gap</label>
          <input id="gap" class="form-control" :value="setup.gap" @change="changed('gap', $event)" />
        </div>
      </div>
      <p class="form-text">
        Lengths such as 1/4 in or 5 mm. With a gap of 0 neighbouring pieces share one cut, and the foot of the sheet
        names the pieces row by row; 4 mm leaves room for every number.
      </p>

      <SheetWishes v-model="wishes" />

      <p v-if="plan.error.value" class="warning-chip mt-3" role="alert">{{ plan.error.value.message }}</p>
      <p v-else class="mt-3 mb-2" role="status" data-testid="plan-words">{{ plan.data.value?.words }}</p>
      <p v-for="saving in plan.data.value?.savings" :key="saving" class="small mb-1" data-testid="saving">
        {{ saving }}
      </p>
      <ul v-if="plan.data.value?.tooLarge.length" class="text-danger-emphasis">
        <li v-for="line in plan.data.value.tooLarge" :key="line">{{ line }}</li>
      </ul>

      <details v-if="plan.data.value?.byHand.length" class="mb-2" open data-testid="by-hand">
        <summary>By hand, once it is cut</summary>
        <ul class="mb-1">
          <li v-for="work in plan.data.value.byHand" :key="work.number">
            <strong>{{ work.number }}</strong> {{ work.steps.join(', then ') }}
          </li>
        </ul>
        <p v-for="caution in plan.data.value.cautions" :key="caution" class="small mb-1">{{ caution }}</p>
      </details>

      <div v-if="plan.data.value?.doubts.length" class="warning-chip mb-2" data-testid="doubts">
        <p class="mb-1">Look at these before you print:</p>
        <ul class="mb-1">
          <li v-for="line in plan.data.value.doubts" :key="line">{{ line }}</li>
        </ul>
        <BFormCheckbox v-model="despiteDoubts">Print anyway</BFormCheckbox>
      </div>

      <div class="d-grid gap-2">
        <BButton
          variant="primary"
          :disabled="
            !plan.data.value?.pieces ||
            (plan.data.value.doubts.length > 0 && !despiteDoubts) ||
            job?.state === 'running' ||
            job?.state === 'waiting'
          "
          @click="print"
        >
          Create PDF
        </BButton>
      </div>
      <PrintProgress v-if="job" :job="job" :album="album" :to-cut="toCut.length" @cancel="cancel" @all-cut="allCut" />
      <p class="form-text mt-3">
        Print at 100 %, never “fit to page”, and lay a ruler on the rule at the foot: 100 mm must measure 100 mm. When
        you cut: cut away from yourself, guard the blade, use a safety rule, keep small parts from children, and follow
        the trimmer maker's instructions.
      </p>
      <h3 class="h6">The spread itself</h3>
      <div class="d-flex gap-2">
        <a class="btn btn-sm btn-outline-dark" :href="`/api/units/${unit.id}/spread.pdf`" download>Page-size PDF</a>
        <a class="btn btn-sm btn-outline-dark" :href="`/api/units/${unit.id}/spread.png`" download>PNG</a>
      </div>
    </section>
    <section class="sheets" aria-label="Preview of the sheets" tabindex="0">
      <p v-if="!single" class="mat-note">The PDF packs the pieces of all of them together.</p>
      <p v-else-if="plan.data.value && plan.data.value.pieces === 0" class="mat-note">
        {{ job?.state === 'done' ? 'The sheets are ready: download them at the left.' : plan.data.value.words }}
      </p>
      <template v-if="single">
        <figure v-for="sheet in plan.data.value?.sheets" :key="sheet.number" class="sheet">
          <img :src="sheetUrl(sheet.number)" :alt="`Sheet ${sheet.number}: pieces ${sheet.numbers.join(', ')}`" />
          <figcaption>
            {{ caption(sheet) }} · {{ counted(sheet.numbers.length, 'piece')
            }}<template v-if="sheet.cutsInOrder"
              >, {{ counted(sheet.cuts, 'cut') }}
              <span class="cuts">Cuts: {{ sheet.cutsInOrder }}</span>
              <a :href="sheetUrl(sheet.number, '/outlines.svg')" :aria-label="`Outlines of sheet ${sheet.number} (SVG)`"
                >Outlines (SVG)</a
              ></template
            >
          </figcaption>
        </figure>
      </template>
      <template v-else>
        <p v-for="sheet in plan.data.value?.sheets" :key="sheet.number" class="mat-note">
          {{ caption(sheet) }} · {{ sheet.numbers.join(', ') }}
        </p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.print {
  flex: 1;
  display: flex;
  min-height: 0;
}
.settings {
  flex: 0 0 340px;
  padding: 1rem 1.2rem 4rem;
  overflow-y: auto;
  border-right: 1px solid var(--line);
}
.pieces {
  max-height: 14rem;
  overflow-y: auto;
  margin: 0 0 0.5rem;
  padding: 0.3rem 0.5rem;
  list-style: none;
  border: 1px solid var(--line);
}
.sheets {
  flex: 1;
  overflow-y: auto;
  padding: 1.2rem;
  display: flex;
  flex-wrap: wrap;
  align-content: flex-start;
  gap: 1.2rem;
  background: var(--mat-dark);
}
@media (max-width: 800px) {
  .print {
    flex-direction: column;
    overflow-y: auto;
  }
  .settings,
  .sheets {
    flex: none;
    overflow: visible;
  }
}
.sheet {
  margin: 0;
}
.sheet img {
  width: 340px;
  max-width: 100%;
  background: #fff;
  box-shadow: 0 4px 14px rgb(0 0 0 / 0.35);
}
.sheet figcaption {
  max-width: 340px;
}
.sheet figcaption a {
  color: #fff;
}
.cuts {
  display: block;
  font-size: 0.85em;
}
.sheet figcaption,
.mat-note {
  color: #fff;
  margin-top: 0.4rem;
}
</style>
