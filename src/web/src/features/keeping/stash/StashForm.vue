<script setup lang="ts">
import { ref } from 'vue'
import type { StashEntry } from '../../../api/client'
import MoneyField from '../../../shared/MoneyField.vue'
import { kinds } from './queries'

/** An item of the stash as it is written down. */
const props = defineProps<{ entry?: StashEntry; kits: string[]; themes: string[]; id: string; busy: boolean }>()
const emit = defineEmits<{ save: [entry: StashEntry]; close: [] }>()
const written = ref<StashEntry>({
  kind: 'card',
  name: '',
  count: 1,
  theme: '',
  kit: '',
  place: '',
  size: '',
  colours: '',
  letters: '',
  ...props.entry,
  price: props.entry?.price ?? null,
})
const at = (field: string) => `stash-${props.id}-${field}`
</script>

<template>
  <form class="item-form" @submit.prevent="emit('save', { ...written, count: Number(written.count) })">
    <div>
      <label :for="at('name')" class="form-label mb-0">Name</label>
      <BFormInput :id="at('name')" v-model="written.name" size="sm" maxlength="80" required />
    </div>
    <div>
      <label :for="at('kind')" class="form-label mb-0">Kind</label>
      <BFormSelect :id="at('kind')" v-model="written.kind" size="sm">
        <option v-for="[kind, name] in kinds" :key="kind" :value="kind">{{ name }}</option>
      </BFormSelect>
    </div>
    <div>
      <label :for="at('count')" class="form-label mb-0">How many</label>
      <BFormInput :id="at('count')" v-model="written.count" type="number" min="0" max="10000" size="sm" required />
    </div>
    <div>
      <label :for="at('size')" class="form-label mb-0">Size</label>
      <BFormInput :id="at('size')" v-model="written.size" size="sm" placeholder="4x6 or 30 x 30 cm" />
    </div>
    <div>
      <label :for="at('colours')" class="form-label mb-0">Colours, with commas</label>
      <BFormInput :id="at('colours')" v-model="written.colours" size="sm" placeholder="teal, #f4e9d8" />
    </div>
    <div>
      <label :for="at('theme')" class="form-label mb-0">Theme</label>
      <BFormInput :id="at('theme')" v-model="written.theme" size="sm" maxlength="80" :list="at('themes')" />
      <datalist :id="at('themes')"><option v-for="t in themes" :key="t" :value="t" /></datalist>
    </div>
    <div>
      <label :for="at('kit')" class="form-label mb-0">Kit</label>
      <BFormInput :id="at('kit')" v-model="written.kit" size="sm" maxlength="80" :list="at('kits')" />
      <datalist :id="at('kits')"><option v-for="k in kits" :key="k" :value="k" /></datalist>
    </div>
    <div>
      <label :for="at('place')" class="form-label mb-0">Where it lies</label>
      <BFormInput :id="at('place')" v-model="written.place" size="sm" maxlength="80" />
    </div>
    <MoneyField :id="at('price')" v-model="written.price!" label="Price of one" />
    <div v-if="written.kind === 'letters'">
      <label :for="at('letters')" class="form-label mb-0">Letters on the sheet</label>
      <BFormInput :id="at('letters')" v-model="written.letters" size="sm" placeholder="A12 B4 '2" />
    </div>
    <div class="d-flex gap-2 align-items-end">
      <BButton type="submit" size="sm" variant="primary" :disabled="busy">{{
        entry ? 'Save item' : 'Add item'
      }}</BButton>
      <BButton size="sm" variant="outline-dark" @click="emit('close')">Cancel</BButton>
    </div>
  </form>
</template>

<style scoped>
.item-form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.5rem 0.75rem;
}
</style>
