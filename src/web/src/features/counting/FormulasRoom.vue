<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed, reactive, ref } from 'vue'
import { answer, api, type AlbumView, type FormulaView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useFormulas, useFormulaStand } from './queries'
import ChangesDialog from '../../shared/ChangesDialog.vue'
import { usePreview } from '../../shared/preview'
import { unitPlace } from '../../shared/places'

/** Patterns that weeks or days repeat: written, learnt from a finished one, applied to a stretch. */
const props = defineProps<{ album: AlbumView }>()
const { data: formulas, error } = useFormulas(() => props.album.id)
const { asked, ask, act } = usePreview(() => props.album.id)
const from = ref(props.album.units.find((u) => !u.leftOut)?.id ?? '')
const count = ref(Math.min(12, props.album.units.length))
const { data: stand } = useFormulaStand(
  () => props.album.id,
  from,
  () => Math.min(40, count.value),
)
const makes = computed(() => props.album.protectors.filter((p) => !p.gone))
const nameOf = (id: string) => props.album.protectors.find((p) => p.id === id)?.designName ?? 'a leaf that is gone'

const blank = () => ({
  id: null as string | null,
  name: '',
  own: makes.value
    .filter((p) => p.kind === 'pockets')
    .slice(0, 1)
    .map((p) => p.id),
  between: [] as string[],
  pictures: 5,
  words: 1,
  title: true,
})
const form = reactive(blank())
const writing = ref(false)
const more = ref('')
const alternate = ref('')

function write(f?: FormulaView) {
  const known = f && {
    id: f.id || null,
    name: f.name,
    own: [...f.own],
    between: [...f.between],
    pictures: f.pictures,
    words: f.words,
    title: f.title,
  }
  Object.assign(form, known ?? blank())
  writing.value = true
}

async function learn() {
  const learnt = await answer(
    api.GET('/api/albums/{albumId}/formulas/learn', {
      params: { path: { albumId: props.album.id }, query: { unitId: from.value } },
    }),
  )
  write({ ...learnt, id: '' })
}

async function keep() {
  const { id, ...formula } = form
  const done = await act(() =>
    editAlbum(props.album.id, { kind: 'keepFormula', revision: props.album.revision, formulaId: id, ...formula }),
  )
  if (done) writing.value = false
}

const drop = (formulaId: string) =>
  act(() => editAlbum(props.album.id, { kind: 'deleteFormula', revision: props.album.revision, formulaId }))

/** The stretch that the formula is given to, without what is left out on purpose. */
const stretch = computed(() => {
  const units = props.album.units
  return units
    .slice(units.findIndex((u) => u.id === from.value))
    .filter((u) => !u.leftOut)
    .slice(0, Math.min(40, count.value))
    .map((u) => ({ unitId: u.id, revision: u.revision }))
})

const apply = (formulaId: string) =>
  ask((preview) => editAlbum(props.album.id, { kind: 'applyFormula', formulaId, units: stretch.value }, preview))
</script>

<template>
  <div class="room">
    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <p>
      A formula is a pattern you repeat: the design of a week's own pages, the leaves between them, and how many
      pictures and words it wants at least. What is above flows to extra leaves; what is below is listed as missing.
    </p>
    <div class="d-flex flex-wrap gap-3 align-items-end mb-3">
      <div>
        <label for="formula-from" class="form-label mb-0">From</label>
        <BFormSelect id="formula-from" v-model="from" size="sm">
          <option v-for="u in album.units.filter((o) => !o.leftOut)" :key="u.id" :value="u.id">
            {{ u.title }} · {{ u.label }}
          </option>
        </BFormSelect>
      </div>
      <div>
        <label for="formula-count" class="form-label mb-0">Parts</label>
        <input
          id="formula-count"
          v-model.number="count"
          type="number"
          min="1"
          max="40"
          class="form-control form-control-sm count"
        />
      </div>
      <BButton variant="outline-dark" size="sm" @click="write()">Add a formula</BButton>
      <BButton variant="outline-dark" size="sm" @click="learn">Create a formula from this week</BButton>
    </div>

    <form v-if="writing" class="border rounded p-3 mb-3 bg-card" aria-label="A formula" @submit.prevent="keep">
      <div class="row g-2">
        <div class="col-md-4">
          <label for="formula-name" class="form-label mb-0">Name</label>
          <input id="formula-name" v-model="form.name" maxlength="80" class="form-control form-control-sm" required />
        </div>
        <div class="col-md-2">
          <label for="formula-pictures" class="form-label mb-0">Photos, at least</label>
          <input
            id="formula-pictures"
            v-model.number="form.pictures"
            type="number"
            min="0"
            max="400"
            class="form-control form-control-sm"
          />
        </div>
        <div class="col-md-2">
          <label for="formula-words" class="form-label mb-0">Journaling cards</label>
          <input
            id="formula-words"
            v-model.number="form.words"
            type="number"
            min="0"
            max="100"
            class="form-control form-control-sm"
          />
        </div>
        <label class="col-md-3 form-check align-self-end my-2 ms-3">
          <input v-model="form.title" type="checkbox" class="form-check-input" />
          <span class="form-check-label">with a title card</span>
        </label>
      </div>
      <div class="row g-3 mt-1">
        <div class="col-md-6">
          <h2 class="h6 mb-1">Its own pages, in order</h2>
          <ol class="mb-1">
            <li v-for="(id, i) in form.own" :key="i">
              {{ nameOf(id) }}
              <BButton
                v-if="form.own.length > 1"
                size="sm"
                variant="outline-dark"
                :aria-label="`Remove ${nameOf(id)}, number ${i + 1} of its own pages`"
                @click="form.own.splice(i, 1)"
                >Remove</BButton
              >
            </li>
          </ol>
          <div class="d-flex gap-2">
            <BFormSelect v-model="alternate" size="sm" aria-label="A design that takes turns with it">
              <option value="" disabled>takes turns with …</option>
              <option v-for="p in makes.filter((o) => o.kind === 'pockets')" :key="p.id" :value="p.id">
                {{ p.designName }}
              </option>
            </BFormSelect>
            <BButton
              size="sm"
              variant="outline-dark"
              class="text-nowrap"
              :disabled="!alternate"
              @click="form.own.push(alternate)"
              >Add page</BButton
            >
          </div>
        </div>
        <div class="col-md-6">
          <h2 class="h6 mb-1">Leaves between them</h2>
          <ol class="mb-1">
            <li v-for="(id, i) in form.between" :key="i">
              {{ nameOf(id) }}
              <BButton
                size="sm"
                variant="outline-dark"
                :aria-label="`Remove ${nameOf(id)}, number ${i + 1} between`"
                @click="form.between.splice(i, 1)"
                >Remove</BButton
              >
            </li>
          </ol>
          <div class="d-flex gap-2">
            <BFormSelect v-model="more" size="sm" aria-label="A leaf between its own pages">
              <option value="" disabled>another leaf …</option>
              <option v-for="p in makes" :key="p.id" :value="p.id">{{ p.designName }}</option>
            </BFormSelect>
            <BButton
              size="sm"
              variant="outline-dark"
              class="text-nowrap"
              :disabled="!more"
              @click="form.between.push(more)"
              >Add between</BButton
            >
          </div>
        </div>
      </div>
      <div class="d-flex gap-2 mt-2">
        <BButton type="submit" size="sm" variant="primary">Save formula</BButton>
        <BButton size="sm" variant="outline-dark" @click="writing = false">Leave it</BButton>
      </div>
    </form>

    <p v-if="formulas?.length === 0 && !writing" class="visually-quiet">
      No formula yet: write one, or lay out one week by hand and learn it from there.
    </p>
    <ul class="formulas">
      <li v-for="f in formulas ?? []" :key="f.id" class="formula" data-testid="formula">
        <div>
          <strong>{{ f.name }}</strong>
          <span class="small visually-quiet"
            >{{ counted(f.followers, 'week or day follows', 'weeks or days follow') }} it</span
          >
          <p class="small mb-0">{{ f.says }}</p>
        </div>
        <span class="d-flex gap-1 flex-wrap">
          <BButton size="sm" variant="primary" :aria-label="`Use this formula: ${f.name}`" @click="apply(f.id)"
            >Use this formula</BButton
          >
          <BButton size="sm" variant="outline-dark" :aria-label="`Change ${f.name}`" @click="write(f)">Change</BButton>
          <BButton size="sm" variant="outline-dark" :aria-label="`Delete ${f.name}`" @click="drop(f.id)"
            >Delete</BButton
          >
        </span>
      </li>
    </ul>
    <table v-if="stand?.length" class="table table-sm mt-3" data-testid="formula-stand">
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Formula</th>
          <th scope="col">Missing</th>
          <th scope="col">More than needed</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in stand" :key="p.unitId">
          <th scope="row">
            <RouterLink :to="unitPlace(album.id, p.unitId, 'count')">{{ p.title }}</RouterLink>
          </th>
          <td>{{ p.formula }}</td>
          <td>{{ p.missing || 'nothing' }}</td>
          <td>{{ p.beyond || 'nothing' }}</td>
        </tr>
      </tbody>
    </table>
    <ChangesDialog v-model="asked" />
  </div>
</template>

<style scoped>
.count {
  width: 5rem;
}
.bg-card {
  background: var(--card);
}
.formulas {
  display: grid;
  gap: 0.5rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.formula {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  justify-content: space-between;
  padding: 0.6rem 0.8rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.5rem;
}
</style>
