<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { AlbumView, StashEntry, StashItemView } from '../../../api/client'
import { counted } from '../../../shared/words'
import { kinds, useStash, useStashEdits, type StashQuestion } from './queries'
import StashForm from './StashForm.vue'
import StashLine from './StashLine.vue'
import StashNeeds from './StashNeeds.vue'
import StashPhotoPanel from './StashPhotoPanel.vue'
import UnitStash from './UnitStash.vue'

/** Cards, papers, stickers and the rest in stock: what is there, what goes with a week, what to buy. */
const props = defineProps<{ album: AlbumView; unitId?: string }>()
const question = reactive<StashQuestion>({ text: '', kind: '', kit: '' })
const { data, error } = useStash(question)
const { edit, turn, importFile } = useStashEdits()
/** The item that is being changed; `new` for one that is being written. */
const open = ref('')
const busy = ref(false)
const input = ref<HTMLInputElement | null>(null)
const kits = computed(() => data.value?.kits.map((k) => k.name) ?? [])

async function run<T>(what: () => Promise<T>): Promise<T> {
  busy.value = true
  try {
    return await what()
  } finally {
    busy.value = false
  }
}
const add = async (entry: StashEntry) => {
  if (await run(() => edit({ kind: 'addToStash', entries: [entry], upload: null }))) open.value = ''
}
const change = async (item: StashItemView, entry: StashEntry) => {
  if (await run(() => edit({ kind: 'changeInStash', itemId: item.id, revision: item.revision, entry }))) open.value = ''
}
const remove = (item: StashItemView) =>
  run(() => edit({ kind: 'deleteFromStash', itemId: item.id, revision: item.revision }))
async function read(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (file) await run(() => importFile(file))
}
</script>

<template>
  <div class="room" data-testid="stash">
    <UnitStash v-if="props.unitId" :key="props.unitId" :album-id="album.id" :unit-id="props.unitId" />
    <StashNeeds v-else :album-id="album.id" />
    <section class="room-panel mt-3" aria-labelledby="stash-head">
      <div class="d-flex flex-wrap gap-2 align-items-center mb-2">
        <h2 id="stash-head" class="h5 mb-0">Stash</h2>
        <span class="visually-quiet">{{ counted(data?.total ?? 0, 'item') }}</span>
        <BButton
          v-if="data?.undo"
          size="sm"
          variant="outline-dark"
          :title="data.undo.summary"
          :disabled="busy"
          @click="turn(data.undo!.stepId, true)"
          >Undo in the stash</BButton
        >
        <BButton
          v-if="data?.redo"
          size="sm"
          variant="outline-dark"
          :title="data.redo.summary"
          :disabled="busy"
          @click="turn(data.redo!.stepId, false)"
          >Redo in the stash</BButton
        >
        <div class="ms-auto d-flex flex-wrap gap-2">
          <BButton size="sm" variant="primary" @click="open = open === 'new' ? '' : 'new'">Add an item</BButton>
          <input
            ref="input"
            type="file"
            accept=".csv,text/csv"
            class="visually-hidden"
            tabindex="-1"
            aria-hidden="true"
            @change="read"
          />
          <BButton size="sm" variant="outline-dark" :disabled="busy" @click="input?.click()">Import CSV</BButton>
          <a class="btn btn-sm btn-outline-dark" href="/api/stash.csv" download>Export CSV</a>
        </div>
      </div>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <StashForm
        v-if="open === 'new'"
        id="new"
        class="mb-3"
        :kits="kits"
        :themes="data?.themes ?? []"
        :busy="busy"
        @save="add"
        @close="open = ''"
      />
      <StashPhotoPanel class="mb-3" />
      <div class="d-flex flex-wrap gap-3 align-items-end mb-2">
        <div>
          <label for="stash-text" class="form-label mb-0">Find</label>
          <BFormInput id="stash-text" v-model="question.text" size="sm" type="search" placeholder="teal autumn" />
        </div>
        <div>
          <label for="stash-kind" class="form-label mb-0">Kind</label>
          <BFormSelect id="stash-kind" v-model="question.kind" size="sm">
            <option value="">all kinds</option>
            <option v-for="[kind, name] in kinds" :key="kind" :value="kind">{{ name }}</option>
          </BFormSelect>
        </div>
        <div v-if="data?.kits.length">
          <label for="stash-kit" class="form-label mb-0">Kit</label>
          <BFormSelect id="stash-kit" v-model="question.kit" size="sm">
            <option value="">all kits</option>
            <option v-for="k in data.kits" :key="k.name" :value="k.name">
              {{ k.name }}: {{ k.left }} of {{ k.bought }} left
            </option>
          </BFormSelect>
        </div>
      </div>
      <p v-if="data && !data.items.length" class="mb-0">
        {{
          question.text || question.kind || question.kit
            ? 'Nothing like that is in the stash.'
            : 'The stash is empty. Add what you have: typed, from a photo of several cards, or from a CSV file.'
        }}
      </p>
      <ul class="list-unstyled mb-0">
        <template v-for="item in data?.items ?? []" :key="item.id">
          <li v-if="open === item.id" class="py-2">
            <StashForm
              :id="item.id"
              :entry="item.entry"
              :kits="kits"
              :themes="data?.themes ?? []"
              :busy="busy"
              @save="change(item, $event)"
              @close="open = ''"
            />
          </li>
          <StashLine v-else :item="item">
            <BButton size="sm" variant="outline-dark" :aria-label="`Change ${item.name}`" @click="open = item.id"
              >Change</BButton
            >
            <BButton
              size="sm"
              variant="outline-dark"
              :disabled="busy"
              :aria-label="`Delete ${item.name}`"
              @click="remove(item)"
              >Delete</BButton
            >
          </StashLine>
        </template>
      </ul>
      <p v-if="(data?.total ?? 0) > (data?.items.length ?? 0)" class="mt-2 mb-0">
        {{ data!.items.length }} of {{ data!.total }} items: find the others by their name, colour or kit.
      </p>
    </section>
  </div>
</template>
