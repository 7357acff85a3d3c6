<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { reactive, ref } from 'vue'
import { answer, api, type StyleTry, type StyleView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import NumberField from '../../shared/NumberField.vue'
import { stocks, type Stock } from '../../shared/stocks'
import { typefaces } from './kinds'

/** A card style of one's own: type, margins, colours, what is around the words, and what is kept free of them. */
const props = defineProps<{
  albumId: string
  styleInHand: StyleView
  families: string[]
  sizes: string[]
  size: string
  revision: number
}>()
const emit = defineEmits<{ close: [] }>()
const { act } = useAct(() => props.albumId)
const style = reactive<StyleView>({ ...props.styleInHand })
const shownAt = ref(props.size)
const words = ref('')
const tried = ref<StyleTry>()
const refused = ref('')
let asked = 0

const dresses: [StyleView['dress'], string][] = [
  ['plain', 'Nothing'],
  ['edgeBand', 'A band at the left edge'],
  ['topBand', 'A band across the top'],
  ['frame', 'A thin frame'],
  ['headAndFoot', 'A line at head and foot'],
  ['cornerTag', 'A tag in the corner'],
  ['risingDisc', 'A half disc at the foot'],
  ['dots', 'Dots all over'],
  ['stripes', 'Stripes all over'],
  ['segments', 'Segments all over'],
  ['crosses', 'Crosses all over'],
]

watchDebounced([() => ({ ...style }), shownAt, words], look, { debounce: 150 })
void look()

async function look() {
  const turn = ++asked
  try {
    const found = await answer(
      api.POST('/api/albums/{albumId}/words/styles/try', {
        params: { path: { albumId: props.albumId } },
        body: { style: { ...style }, size: shownAt.value, words: words.value, photo: true },
      }),
    )
    if (turn !== asked) return
    tried.value = found
    refused.value = ''
  } catch (error) {
    // While a number is being typed it may make no sense yet: the last picture stays.
    if (turn === asked) refused.value = (error as Error).message
  }
}

async function save() {
  const saved = await act(() =>
    editAlbum(props.albumId, { kind: 'writeStyle', revision: props.revision, style: { ...style } }),
  )
  if (saved) emit('close')
}
</script>

<template>
  <form class="editor" aria-label="A card style of your own" @submit.prevent="save">
    <div class="fields">
      <h2 class="h5">{{ styleInHand.key ? `Change ${styleInHand.name}` : 'A card style of your own' }}</h2>
      <div class="row-of">
        <div class="grow">
          <label for="style-name" class="form-label">Name</label>
          <input id="style-name" v-model="style.name" class="form-control form-control-sm" maxlength="60" required />
        </div>
        <div class="grow">
          <label for="style-family" class="form-label">Family</label>
          <input
            id="style-family"
            v-model="style.family"
            class="form-control form-control-sm"
            list="families"
            maxlength="60"
            required
          />
          <datalist id="families"><option v-for="f in families" :key="f" :value="f"></option></datalist>
        </div>
      </div>
      <fieldset v-if="style.role !== 'filler'">
        <legend>Type</legend>
        <div class="row-of">
          <div class="grow">
            <label for="style-face" class="form-label">Face</label>
            <BFormSelect id="style-face" v-model="style.face" size="sm">
              <option v-for="t in typefaces" :key="t.face" :value="t.face">{{ t.name }}</option>
            </BFormSelect>
          </div>
          <NumberField id="style-small" v-model="style.smallestPt" label="From, pt" :min="7" :max="200" :step="0.25" />
          <NumberField id="style-large" v-model="style.largestPt" label="To, pt" :min="7" :max="200" :step="0.25" />
          <NumberField
            id="style-leading"
            v-model="style.leading"
            label="Leading, × size"
            :min="1"
            :max="2"
            :step="0.02"
          />
          <NumberField id="style-margin" v-model="style.marginMm" label="Margin, mm" :min="3" :max="30" :step="0.5" />
          <NumberField id="style-columns" v-model="style.columns" label="Columns" :min="1" :max="3" />
        </div>
        <div class="form-check my-2">
          <input id="style-ruled" v-model="style.ruled" type="checkbox" class="form-check-input" />
          <label for="style-ruled" class="form-check-label">A line under every line of words</label>
        </div>
      </fieldset>
      <fieldset>
        <legend>Colours and edges</legend>
        <div class="row-of">
          <div>
            <label for="style-paper" class="form-label">Paper</label>
            <input id="style-paper" v-model="style.paper" type="color" class="form-control form-control-color" />
          </div>
          <div>
            <label for="style-ink" class="form-label">Ink</label>
            <input id="style-ink" v-model="style.ink" type="color" class="form-control form-control-color" />
          </div>
          <div>
            <label for="style-accent" class="form-label">Accent</label>
            <input id="style-accent" v-model="style.accent" type="color" class="form-control form-control-color" />
          </div>
          <div class="grow">
            <label for="style-dress" class="form-label">Around the words</label>
            <BFormSelect id="style-dress" v-model="style.dress" size="sm">
              <option v-for="[key, name] in dresses" :key="key" :value="key">{{ name }}</option>
            </BFormSelect>
          </div>
          <NumberField id="style-border" v-model="style.borderPt" label="Border, pt" :min="0" :max="18" :step="0.5" />
          <div>
            <label for="style-stock" class="form-label">Printed on</label>
            <BFormSelect
              id="style-stock"
              size="sm"
              :model-value="style.printedOn ?? ''"
              @update:model-value="style.printedOn = ($event as Stock | '') || null"
            >
              <option value="">as the album</option>
              <option v-for="s in stocks" :key="s.stock" :value="s.stock">{{ s.name }}</option>
            </BFormSelect>
          </div>
          <NumberField id="style-corner" v-model="style.cornerMm" label="Corners, mm" :min="0" :max="12" :step="0.5" />
        </div>
      </fieldset>
      <fieldset v-if="style.role !== 'filler' && style.role !== 'title'">
        <legend>Kept free of words</legend>
        <div class="row-of">
          <div>
            <label for="style-band" class="form-label">A band</label>
            <BFormSelect id="style-band" v-model="style.band" size="sm">
              <option value="none">none</option>
              <option value="head">at the head</option>
              <option value="foot">at the foot</option>
            </BFormSelect>
          </div>
          <template v-if="style.band !== 'none'">
            <NumberField
              id="style-band-mm"
              v-model="style.bandMm"
              label="Its height, mm"
              :min="0"
              :max="40"
              :step="0.5"
            />
            <div class="form-check my-2 align-self-end">
              <input id="style-band-printed" v-model="style.bandPrinted" type="checkbox" class="form-check-input" />
              <label for="style-band-printed" class="form-check-label">the date or hour in it</label>
            </div>
          </template>
          <NumberField
            id="style-indent"
            v-model="style.indentMm"
            label="Indent past the hour, mm"
            :min="0"
            :max="40"
            :step="0.5"
          />
          <div>
            <label for="style-picture" class="form-label">A picture</label>
            <BFormSelect id="style-picture" v-model="style.picture" size="sm">
              <option value="none">none</option>
              <option value="left">at the left</option>
              <option value="right">at the right</option>
              <option value="top">at the top</option>
            </BFormSelect>
          </div>
          <div v-if="style.picture !== 'none'">
            <label for="style-share" class="form-label">Its share, {{ Math.round(style.pictureShare * 100) }} %</label>
            <input
              id="style-share"
              v-model.number="style.pictureShare"
              type="range"
              min="0.2"
              max="0.7"
              step="0.05"
              class="form-range"
            />
          </div>
        </div>
      </fieldset>
      <div class="d-flex gap-2 mt-3">
        <BButton type="submit" variant="primary">Save style</BButton>
        <BButton variant="outline-dark" @click="emit('close')">Cancel</BButton>
      </div>
    </div>
    <div class="shown">
      <div class="row-of mb-2">
        <div>
          <label for="shown-at" class="form-label">On a card of</label>
          <BFormSelect id="shown-at" v-model="shownAt" size="sm">
            <option v-for="s in sizes" :key="s" :value="s">{{ s }}</option>
          </BFormSelect>
        </div>
      </div>
      <img
        v-if="tried"
        :src="tried.picture"
        alt="The card in this style, at true size"
        :style="{ width: `${tried.width}in` }"
      />
      <p class="small mb-1" aria-live="polite" data-testid="style-verdict">
        <span v-if="refused" class="warning-chip">! {{ refused }}</span>
        <span v-else>{{ tried?.verdict }}</span>
      </p>
      <template v-if="style.role === 'words'">
        <label for="style-words" class="form-label">Try your own words</label>
        <textarea
          id="style-words"
          v-model="words"
          class="form-control form-control-sm"
          rows="3"
          maxlength="2000"
        ></textarea>
      </template>
    </div>
  </form>
</template>

<style scoped>
.editor {
  display: flex;
  flex-wrap: wrap;
  gap: 1.5rem;
  align-items: flex-start;
}
.fields {
  flex: 1 1 30rem;
}
.shown {
  flex: 0 1 26rem;
}
.shown img {
  max-width: 100%;
  height: auto;
  border: 1px solid var(--line);
  box-shadow: 0 2px 6px rgb(60 40 20 / 0.15);
}
.row-of {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: end;
}
.grow {
  flex: 1 1 10rem;
}
.form-label {
  margin-bottom: 0;
}
fieldset {
  margin-top: 0.9rem;
  padding-top: 0.5rem;
  border-top: 1px solid var(--line);
}
legend {
  font-size: 1rem;
  font-weight: 700;
}
</style>
