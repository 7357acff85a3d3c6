<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed, ref, watch } from 'vue'
import { answer, api, Refusal, type DraftView } from '../../api/client'

/** A page design drawn on the mat: pockets are parted and merged, sizes snap to what can be bought, areas add up. */
const props = defineProps<{ start: string }>()
const emit = defineEmits<{ keep: [name: string, notation: string] }>()

const draft = ref<DraftView>()
const text = ref('')
const name = ref('')
const chosen = ref<string[]>([])
const problem = ref('')
/** What the draft was before each step, to take it back. */
const steps = ref<string[]>([])
const own = ref({ upright: true, parts: '' })

type Change = { split?: { key: string; upright: boolean; parts: string[] }; merge?: string[] }

async function load(notation: string, change: Change = {}, back = false) {
  try {
    const next = await answer(api.POST('/api/designs/draft', { body: { notation, ...change } }))
    if (draft.value && !back && next.notation !== draft.value.notation) steps.value.push(draft.value.notation)
    draft.value = next
    text.value = next.notation
    chosen.value = []
    problem.value = ''
  } catch (error) {
    problem.value = error instanceof Refusal ? error.message : 'The draft could not be read.'
  }
}
watch(
  () => props.start,
  (notation) => {
    draft.value = undefined
    steps.value = []
    name.value = ''
    void load(notation)
  },
  { immediate: true },
)

const one = computed(() =>
  chosen.value.length === 1 ? draft.value?.pockets.find((p) => p.key === chosen.value[0]) : undefined,
)
const change = (what: Change) => load(draft.value!.notation, what)
const undo = () => load(steps.value.pop()!, {}, true)

function choose(key: string, more: boolean) {
  const on = chosen.value.includes(key)
  if (more) chosen.value = on ? chosen.value.filter((k) => k !== key) : [...chosen.value, key]
  else chosen.value = on && chosen.value.length === 1 ? [] : [key]
}
const inch = 914_400
</script>

<template>
  <section class="editor" aria-label="Drawing a page design">
    <div v-if="draft" class="design-mat" @keydown.escape="chosen = []">
      <div
        class="page"
        data-bs-theme="light"
        :style="{
          // Half an inch a square, as on the mat: background positions are shares of what is left over.
          aspectRatio: `${draft.bodyWidth} / ${draft.bodyHeight}`,
          backgroundSize: `${(50 * inch) / draft.bodyWidth}% ${(50 * inch) / draft.bodyHeight}%`,
        }"
        role="group"
        :aria-label="`Page of ${draft.body}`"
      >
        <button
          v-for="p in draft.pockets"
          :key="p.key"
          type="button"
          class="cell"
          :class="{ on: chosen.includes(p.key), odd: !p.bought }"
          :aria-pressed="chosen.includes(p.key)"
          :aria-label="`Pocket ${p.size}${p.bought ? '' : ', a size that is not sold'}`"
          :style="{
            left: `${(100 * p.x) / draft.bodyWidth}%`,
            top: `${(100 * p.y) / draft.bodyHeight}%`,
            width: `${(100 * p.width) / draft.bodyWidth}%`,
            height: `${(100 * p.height) / draft.bodyHeight}%`,
          }"
          @click="choose(p.key, $event.shiftKey || $event.ctrlKey || $event.metaKey)"
          @keydown.m.prevent="choose(p.key, true)"
        >
          {{ p.size }}
        </button>
      </div>
    </div>
    <div class="tools">
      <p v-if="problem" class="warning-chip" role="alert">{{ problem }}</p>
      <template v-if="draft">
        <p class="mb-1" data-testid="draft-name">
          <strong>{{ draft.name }}</strong> · page of {{ draft.body }}, {{ counted(draft.pockets.length, 'pocket') }};
          their areas add up to the page.
        </p>
        <template v-if="one">
          <h3 class="h6 mb-1">Part the {{ one.size }}</h3>
          <div class="d-flex flex-wrap gap-1">
            <BButton
              v-for="s in one.splits"
              :key="s.label"
              size="sm"
              :variant="s.bought ? 'primary' : 'outline-dark'"
              :title="s.bought ? 'Sizes that can be bought' : 'Not all of these sizes are sold'"
              @click="change({ split: { key: one.key, upright: s.upright, parts: s.parts } })"
              >{{ s.label }}</BButton
            >
          </div>
          <form
            class="d-flex gap-2 align-items-end mt-2"
            @submit.prevent="
              change({
                split: { key: one.key, upright: own.upright, parts: own.parts.split('+').map((t) => t.trim()) },
              })
            "
          >
            <div>
              <label for="own-way" class="form-label mb-0">Or</label>
              <BFormSelect id="own-way" v-model="own.upright" size="sm">
                <option :value="true">side by side</option>
                <option :value="false">one under another</option>
              </BFormSelect>
            </div>
            <div>
              <label for="own-parts" class="form-label mb-0">Parts</label>
              <input
                id="own-parts"
                v-model="own.parts"
                class="form-control form-control-sm"
                placeholder="2.5 + 3.5"
                required
              />
            </div>
            <BButton type="submit" size="sm" variant="outline-dark">Split</BButton>
          </form>
        </template>
        <BButton v-else-if="chosen.length > 1" size="sm" variant="primary" @click="change({ merge: chosen })"
          >Merge these {{ chosen.length }} pockets</BButton
        >
        <p v-else class="visually-quiet mb-0">
          Choose a pocket to part it. Choose several with Shift, or with M on the keyboard, to merge them.
        </p>
        <div class="d-flex gap-2 mt-2">
          <BButton size="sm" variant="outline-dark" :disabled="steps.length === 0" @click="undo">Undo</BButton>
        </div>
        <form class="mt-3" @submit.prevent="load(text)">
          <label for="notation" class="form-label mb-0">Layout as text</label>
          <textarea
            id="notation"
            v-model="text"
            rows="2"
            class="form-control form-control-sm font-monospace"
          ></textarea>
          <div class="form-text mt-0">| parts side by side, / begins a new row, brackets nest: 6x8 | (3x4 / 3x4)</div>
          <BButton type="submit" size="sm" variant="outline-dark" :disabled="text.trim() === draft.notation"
            >Draw this layout</BButton
          >
        </form>
        <form class="d-flex gap-2 align-items-end mt-3" @submit.prevent="emit('keep', name, draft.notation)">
          <div class="flex-grow-1">
            <label for="design-name" class="form-label mb-0">Name</label>
            <input
              id="design-name"
              v-model="name"
              maxlength="120"
              class="form-control form-control-sm"
              :placeholder="draft.name"
            />
          </div>
          <BButton type="submit" size="sm" variant="primary">Save to my designs</BButton>
        </form>
      </template>
    </div>
  </section>
</template>

<style scoped>
.editor {
  display: grid;
  grid-template-columns: minmax(16rem, 1.1fr) minmax(18rem, 1fr);
  gap: 1.2rem;
}
.design-mat {
  display: grid;
  place-items: center;
  padding: 1rem;
  background: var(--mat);
  border-radius: 0.5rem;
}
.page {
  position: relative;
  height: min(48vh, 400px);
  max-width: 100%;
  background-color: rgb(255 255 255 / 0.4);
  background-image:
    linear-gradient(rgb(40 55 65 / 0.28) 1px, transparent 1px),
    linear-gradient(90deg, rgb(40 55 65 / 0.28) 1px, transparent 1px);
}
.cell {
  position: absolute;
  border: 1.5px solid #40535f;
  background: rgb(250 252 253 / 0.6);
  color: var(--ink);
  font-size: 0.85rem;
}
.cell.odd {
  background: #fdf3e6;
  font-style: italic;
}
.cell.on {
  background: var(--zest-pale);
  outline: 3px solid var(--zest-bright);
  z-index: 1;
}
@media (max-width: 900px) {
  .editor {
    grid-template-columns: 1fr;
  }
}
</style>
