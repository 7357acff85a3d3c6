<script setup lang="ts">
import { ref } from 'vue'
import type { FoundOnPhoto, StashEntry } from '../../../api/client'
import { useNotices } from '../../../shared/notices'
import { counted } from '../../../shared/words'
import { findOnPhoto, kinds, useStashEdits } from './queries'

/** Takes items in by a photo of several: each is cut apart and proposed, and named by its keeper. */
const notices = useNotices()
const { edit } = useStashEdits()
const input = ref<HTMLInputElement | null>(null)
const found = ref<FoundOnPhoto | null>(null)
const entries = ref<StashEntry[]>([])
const taken = ref<boolean[]>([])
const kit = ref('')
const busy = ref(false)

async function look(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (!file) return
  busy.value = true
  try {
    found.value = await findOnPhoto(file)
    entries.value = found.value.items.map((i) => ({ ...i.entry }))
    taken.value = entries.value.map(() => true)
  } catch (refused) {
    notices.refused(refused)
  } finally {
    busy.value = false
  }
}

async function add() {
  const chosen = entries.value.filter((_, i) => taken.value[i])
  busy.value = true
  try {
    const done = await edit({
      kind: 'addToStash',
      upload: found.value!.upload,
      entries: chosen.map((entry) => ({ ...entry, kit: kit.value, count: Number(entry.count) })),
    })
    if (done) found.value = null
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div>
    <input
      ref="input"
      type="file"
      accept="image/*"
      class="visually-hidden"
      tabindex="-1"
      aria-hidden="true"
      @change="look"
    />
    <BButton size="sm" variant="outline-dark" :disabled="busy" @click="input?.click()">Add from a photo</BButton>
    <section v-if="found" class="found mt-2" aria-label="Found on the photo" data-testid="found">
      <p class="mb-2" role="status">{{ found.words }}</p>
      <div class="d-flex gap-3 flex-wrap">
        <img :src="found.photo" alt="The whole photo" class="whole" />
        <ol class="list-unstyled flex-grow-1 mb-0">
          <li v-for="(entry, i) in entries" :key="i" class="d-flex gap-2 align-items-end mb-2">
            <img :src="found.items[i]!.preview" :alt="`Item ${i + 1}`" class="cut" />
            <label class="form-check mb-1">
              <input v-model="taken[i]" type="checkbox" class="form-check-input" />
              <span class="form-check-label">Item {{ i + 1 }}</span>
            </label>
            <div>
              <label :for="`found-name-${i}`" class="form-label mb-0">Name</label>
              <BFormInput :id="`found-name-${i}`" v-model="entry.name" size="sm" maxlength="80" />
            </div>
            <div>
              <label :for="`found-kind-${i}`" class="form-label mb-0">Kind</label>
              <BFormSelect :id="`found-kind-${i}`" v-model="entry.kind" size="sm">
                <option v-for="[kind, name] in kinds" :key="kind" :value="kind">{{ name }}</option>
              </BFormSelect>
            </div>
            <div>
              <label :for="`found-size-${i}`" class="form-label mb-0">Size</label>
              <BFormInput :id="`found-size-${i}`" v-model="entry.size" size="sm" class="short" />
            </div>
            <div>
              <label :for="`found-count-${i}`" class="form-label mb-0">How many</label>
              <BFormInput
                :id="`found-count-${i}`"
                v-model="entry.count"
                type="number"
                min="0"
                size="sm"
                class="short"
              />
            </div>
          </li>
        </ol>
      </div>
      <div class="d-flex gap-2 align-items-end">
        <div>
          <label for="found-kit" class="form-label mb-0">Kit of all of them</label>
          <BFormInput id="found-kit" v-model="kit" size="sm" maxlength="80" />
        </div>
        <BButton
          size="sm"
          variant="primary"
          :disabled="busy || !taken.includes(true) || entries.some((e, i) => taken[i] && !e.name)"
          @click="add"
          >Add {{ counted(taken.filter((t) => t).length, 'item') }}</BButton
        >
        <BButton size="sm" variant="outline-dark" @click="found = null">Cancel</BButton>
      </div>
    </section>
  </div>
</template>

<style scoped>
.found {
  padding: 0.8rem;
  border: 1px solid var(--line);
  border-radius: 0.5rem;
}
.whole {
  max-width: 16rem;
  max-height: 16rem;
}
.cut {
  width: 4rem;
  height: 4rem;
  object-fit: contain;
}
.short {
  width: 5.5rem;
}
</style>
