<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, Refusal } from '../../api/client'
import PageThumb from './PageThumb.vue'
import { keys, useCatalog } from './queries'

const open = defineModel<boolean>({ required: true })
const { data: catalog } = useCatalog()
const router = useRouter()
const client = useQueryClient()

const today = new Date()
const name = ref('')
const firstDay = ref(`${today.getFullYear()}-01-01`)
const weeks = ref(52)
const body = ref('9x12')
const chosen = ref<string[]>([])
const measures = ref<'inches' | 'millimetres'>('inches')
const problem = ref('')
const busy = ref(false)

const bodies = computed(() => [...new Set(catalog.value?.designs.map((d) => d.body) ?? [])])
const designs = computed(() => catalog.value?.designs.filter((d) => d.body === body.value) ?? [])

watch(
  designs,
  (list) => {
    chosen.value = list.slice(0, 1).map((d) => d.key)
  },
  { immediate: true },
)

async function make() {
  problem.value = ''
  if (!name.value.trim()) {
    problem.value = 'Give the album a name, such as “2026, week by week”.'
    return
  }
  if (!/^\d{4}-\d{2}-\d{2}$/.test(firstDay.value)) {
    problem.value = 'Choose the first day of the album.'
    return
  }
  busy.value = true
  try {
    const album = await answer(
      api.POST('/api/albums', {
        body: {
          name: name.value,
          firstDay: firstDay.value,
          weeks: Number(weeks.value),
          designKeys: chosen.value,
          measures: measures.value,
        },
      }),
    )
    client.setQueryData(keys.album(album.id), album)
    await client.invalidateQueries({ queryKey: keys.shelf })
    open.value = false
    await router.push({ name: 'desk', params: { albumId: album.id, unitId: album.units[0]?.id, tab: 'gather' } })
  } catch (error) {
    problem.value = error instanceof Refusal ? error.message : 'The album could not be made. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <BModal v-model="open" title-tag="h2" title-class="h5 mb-0" title="A new weekly album" size="lg" no-footer>
    <form novalidate @submit.prevent="make">
      <div class="row g-3">
        <div class="col-md-6">
          <label for="album-name" class="form-label">Name</label>
          <input id="album-name" v-model="name" class="form-control" maxlength="200" autocomplete="off" />
        </div>
        <div class="col-md-3">
          <label for="album-first" class="form-label">First day</label>
          <input id="album-first" v-model="firstDay" type="date" class="form-control" />
        </div>
        <div class="col-md-3">
          <label for="album-weeks" class="form-label">Weeks</label>
          <input id="album-weeks" v-model="weeks" type="number" min="1" max="530" class="form-control" />
        </div>
        <div class="col-md-6">
          <label for="album-body" class="form-label">Page body (width x height, inches)</label>
          <select id="album-body" v-model="body" class="form-select">
            <option v-for="b in bodies" :key="b" :value="b">{{ b }}</option>
          </select>
        </div>
        <div class="col-md-6">
          <label for="album-measures" class="form-label">Show measures in</label>
          <select id="album-measures" v-model="measures" class="form-select">
            <option value="inches">inches</option>
            <option value="millimetres">millimetres</option>
          </select>
        </div>
      </div>
      <fieldset class="mt-3">
        <legend class="form-label fs-6">Page protectors you use (the first one chosen starts every leaf)</legend>
        <div class="designs">
          <label
            v-for="design in designs"
            :key="design.key"
            class="design"
            :class="{ on: chosen.includes(design.key) }"
          >
            <PageThumb :design="design" />
            <span class="form-check m-0">
              <input v-model="chosen" type="checkbox" class="form-check-input" :value="design.key" />
              <span class="form-check-label">{{ design.name }}</span>
            </span>
          </label>
        </div>
        <p class="form-text">
          A week takes facing pages. Weeks run Monday to Sunday with ISO numbers. Pockets count as their nominal size
          until you measure one.
        </p>
      </fieldset>
      <p v-if="problem" class="warning-chip" role="alert">{{ problem }}</p>
      <div class="d-flex justify-content-end gap-2">
        <BButton variant="outline-dark" @click="open = false">Cancel</BButton>
        <BButton type="submit" variant="primary" :disabled="busy">Make the album</BButton>
      </div>
    </form>
  </BModal>
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
