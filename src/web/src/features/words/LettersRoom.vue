<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answer, api, type AlbumEdit, type AlbumView, type SheetOfLettersView, type TitleTry } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useNotices } from '../../shared/notices'
import { useAlbumWords } from './queries'

/** Sheets of letter stickers and sets of stamps: what they can spell, and what is left of them. */
const props = defineProps<{ album: AlbumView }>()
const { data: words } = useAlbumWords(() => props.album.id)
const { act } = useAct(() => props.album.id)
const notices = useNotices()
const title = ref('')
const unitId = ref('')
const tried = ref<TitleTry>()
const form = ref<{ id: string | null; name: string; letters: string; reusable: boolean } | null>(null)
const unit = computed(() => props.album.units.find((u) => u.id === unitId.value))
let asked = 0

watch([title, unitId, () => words.value?.sheets], () => void look())

async function look() {
  const turn = ++asked
  if (!title.value.trim() && !unitId.value) {
    tried.value = undefined
    return
  }
  try {
    const found = await answer(
      api.GET('/api/albums/{albumId}/words/title', {
        params: {
          path: { albumId: props.album.id },
          query: { title: title.value, ...(unitId.value ? { unitId: unitId.value } : {}) },
        },
      }),
    )
    if (turn === asked) tried.value = found
  } catch (error) {
    notices.refused(error)
  }
}

const change = (edit: AlbumEdit) => act(() => editAlbum(props.album.id, edit))
const revision = () => words.value!.revision

async function save() {
  const { id, ...sheet } = form.value!
  const saved = await change(
    id
      ? { kind: 'countSheet', revision: revision(), sheetId: id, ...sheet }
      : { kind: 'addSheet', revision: revision(), ...sheet },
  )
  if (saved) form.value = null
}

const spell = (sheetId: string, as: string) =>
  change({
    kind: 'spellTitle',
    revision: revision(),
    sheetId,
    title: as,
    day: unit.value?.firstDay ?? props.album.firstDay,
  })

const putBack = (sheet: SheetOfLettersView, titleId: string) =>
  change({ kind: 'unspellTitle', revision: revision(), sheetId: sheet.id, titleId })

const throwAway = (sheet: SheetOfLettersView) =>
  change({ kind: 'deleteSheet', revision: revision(), sheetId: sheet.id })

const begin = (sheet?: SheetOfLettersView) =>
  (form.value = sheet
    ? { id: sheet.id, name: sheet.name, letters: sheet.letters, reusable: sheet.reusable }
    : { id: null, name: '', letters: '', reusable: false })
</script>

<template>
  <div class="room">
    <section class="panel border rounded p-3 mb-3" aria-label="Try a title">
      <h2 class="h5">Try a title</h2>
      <div class="d-flex flex-wrap gap-2 align-items-end">
        <div class="grow">
          <label for="try-title" class="form-label mb-0">Title</label>
          <input id="try-title" v-model="title" class="form-control" maxlength="120" placeholder="Don’t panic" />
        </div>
        <div>
          <label for="title-for" class="form-label mb-0">For</label>
          <BFormSelect id="title-for" v-model="unitId">
            <option value="">any week or day</option>
            <option v-for="u in album.units" :key="u.id" :value="u.id">{{ u.title }} · {{ u.label }}</option>
          </BFormSelect>
        </div>
      </div>
      <ul v-if="tried && title.trim()" class="tries" aria-live="polite" data-testid="tries">
        <li v-for="s in tried.sheets" :key="s.sheetId">
          <strong>{{ s.name }}:</strong>
          <template v-if="s.can">
            has every letter.
            <button
              type="button"
              class="btn btn-sm btn-primary"
              :aria-label="`Use these letters from ${s.name}`"
              @click="spell(s.sheetId, title)"
            >
              Use these letters
            </button>
          </template>
          <template v-else>
            <span class="warning-chip">! lacks {{ s.missing.join(', ') }}</span>
            <template v-if="s.withStandIns">
              With stand-ins: “{{ s.withStandIns }}”
              <button
                type="button"
                class="btn btn-sm btn-outline-dark"
                :aria-label="`Use this spelling from ${s.name}`"
                @click="spell(s.sheetId, s.withStandIns)"
              >
                Use this spelling
              </button>
            </template>
          </template>
        </li>
      </ul>
      <p v-if="tried?.others.length" class="mt-2 mb-0">
        Can be spelt:
        <button
          v-for="o in tried.others"
          :key="o"
          type="button"
          class="btn btn-sm btn-outline-dark me-1"
          @click="title = o"
        >
          {{ o }}
        </button>
      </p>
    </section>
    <div class="d-flex gap-2 align-items-center mb-2">
      <h2 class="h5 mb-0">Your letters</h2>
      <BButton v-if="!form" size="sm" variant="primary" @click="begin()">Add a sheet</BButton>
    </div>
    <form v-if="form" class="panel border rounded p-3 mb-3" @submit.prevent="save">
      <label for="sheet-name" class="form-label mb-0">Name</label>
      <input id="sheet-name" v-model="form.name" class="form-control" maxlength="80" required />
      <label for="sheet-letters" class="form-label mb-0 mt-2">Letters, and how many of each</label>
      <textarea
        id="sheet-letters"
        v-model="form.letters"
        class="form-control"
        rows="3"
        placeholder="A12 B4 C4 '2 &amp;1"
        required
      ></textarea>
      <p class="form-text">Capitals stand for both cases unless the sheet has small letters too.</p>
      <div class="form-check mb-2">
        <input id="sheet-stamps" v-model="form.reusable" type="checkbox" class="form-check-input" />
        <label for="sheet-stamps" class="form-check-label">These are stamps: letters are never used up</label>
      </div>
      <div class="d-flex gap-2">
        <BButton type="submit" size="sm" variant="primary">Save</BButton>
        <BButton size="sm" variant="outline-dark" @click="form = null">Cancel</BButton>
      </div>
    </form>
    <p v-if="words && !words.sheets.length && !form" class="visually-quiet">
      No letters counted yet. Add a sheet of stickers or a set of stamps, and titles can be tried before the first
      letter is peeled.
    </p>
    <article
      v-for="sheet in words?.sheets"
      :key="sheet.id"
      class="panel border rounded p-3 mb-2"
      :aria-label="sheet.name"
    >
      <div class="d-flex flex-wrap gap-2 align-items-baseline">
        <h3 class="h6 mb-0">{{ sheet.name }}</h3>
        <span class="visually-quiet">{{ sheet.reusable ? 'stamps' : 'stickers' }}</span>
        <BButton
          size="sm"
          variant="outline-dark"
          class="ms-auto"
          :aria-label="`Edit counts ${sheet.name}`"
          @click="begin(sheet)"
          >Edit counts</BButton
        >
        <BButton size="sm" variant="outline-dark" :aria-label="`Delete ${sheet.name}`" @click="throwAway(sheet)"
          >Delete</BButton
        >
      </div>
      <p class="letters" :aria-label="`Left on ${sheet.name}`" data-testid="letters-left">
        <span v-for="l in sheet.left.split(' ')" :key="l" class="letter">{{ l }}</span>
      </p>
      <ul v-if="sheet.spelt.length" class="small mb-0">
        <li v-for="t in sheet.spelt" :key="t.id">
          {{ t.title }}
          <button
            type="button"
            class="btn btn-sm btn-link p-0 align-baseline"
            :aria-label="`Return the letters of “${t.title}”`"
            @click="putBack(sheet, t.id)"
          >
            Return the letters
          </button>
        </li>
      </ul>
    </article>
  </div>
</template>

<style scoped>
.grow {
  flex: 1 1 16rem;
}
.tries {
  display: grid;
  gap: 0.4rem;
  margin: 0.8rem 0 0;
  padding: 0;
  list-style: none;
}
.letters {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  margin: 0.5rem 0;
}
.letter {
  padding: 0 0.45em;
  border: 1px solid var(--line);
  border-radius: 0.3em;
  background: var(--paper);
  font-family: monospace;
}
</style>
