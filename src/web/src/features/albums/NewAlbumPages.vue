<script setup lang="ts">
import { computed, watch } from 'vue'
import PageThumb from '../binder/PageThumb.vue'
import { useCatalog, useDesigns } from '../binder/queries'
import { usualDesign, type AlbumDraft } from './draft'

/** Step 2: page size, page designs and facing pages. */
const draft = defineModel<AlbumDraft>({ required: true })
const { data: catalog } = useCatalog()
const { data: own } = useDesigns()

const all = computed(() => [...(catalog.value?.designs ?? []), ...(own.value ?? []).map((d) => d.design)])
const bodies = computed(() => [...new Set(all.value.map((d) => d.body))])
const designs = computed(() => all.value.filter((d) => d.body === draft.value.body))

watch(
  designs,
  (list) => {
    const kept = draft.value.designs.filter((key) => list.some((d) => d.key === key))
    const usual = usualDesign(list)
    draft.value.designs = kept.length || !usual ? kept : [usual]
  },
  { immediate: true },
)
</script>

<template>
  <div class="row g-3">
    <div class="col-md-6">
      <label for="album-body" class="form-label">Page size, width × height in inches</label>
      <BFormSelect id="album-body" v-model="draft.body">
        <option v-for="b in bodies" :key="b" :value="b">{{ b }}</option>
      </BFormSelect>
    </div>
    <div v-if="draft.kind === 'weekly' || draft.kind === 'trip'" class="col-md-6">
      <label for="album-school" class="form-label">{{ draft.kind === 'weekly' ? 'A week' : 'A day' }} takes</label>
      <BFormSelect id="album-school" v-model="draft.school">
        <option value="spread">facing pages</option>
        <option value="leaf">the two faces of one leaf</option>
      </BFormSelect>
    </div>
  </div>
  <fieldset class="mt-3">
    <legend class="form-label fs-6">
      Page designs you use. The first one you choose is on every page to begin with.
    </legend>
    <div class="designs">
      <label
        v-for="design in designs"
        :key="design.key"
        class="design"
        :class="{ on: draft.designs.includes(design.key) }"
      >
        <PageThumb :design="design" />
        <span class="form-check m-0">
          <input v-model="draft.designs" type="checkbox" class="form-check-input" :value="design.key" />
          <span class="form-check-label">{{ design.name }}</span>
        </span>
      </label>
    </div>
    <p class="form-text">Pockets count as their nominal size until you measure one.</p>
  </fieldset>
</template>

<style scoped>
.designs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
}
.design {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 0.5rem;
  padding: 0.6rem;
  border: 2px solid var(--line);
  border-radius: 0.5rem;
  cursor: pointer;
}
.design.on {
  border-color: var(--zest);
  background: var(--zest-pale);
}
</style>
