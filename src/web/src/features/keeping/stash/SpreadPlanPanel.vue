<script setup lang="ts">
import { ref, watch } from 'vue'
import type { UnitStashView } from '../../../api/client'
import { useAct } from '../../../shared/act'
import { editAlbum } from '../../../shared/edits'
import NumberField from '../../../shared/NumberField.vue'
import { counted } from '../../../shared/words'

/** What a week or day will be made of, planned before its pictures exist. */
const props = defineProps<{ albumId: string; stash: UnitStashView }>()
const { act } = useAct(() => props.albumId)
const open = ref(false)
const busy = ref(false)
const kit = ref('')
const stories = ref(2)
const note = ref('')
const design = ref('')
watch(
  () => props.stash.plan,
  (plan) => {
    kit.value = plan?.kit ?? ''
    stories.value = plan?.stories ?? 2
    note.value = plan?.note ?? ''
  },
  { immediate: true },
)

async function save() {
  busy.value = true
  try {
    const done = await act(() =>
      editAlbum(props.albumId, {
        kind: 'planSpread',
        revision: props.stash.albumRevision,
        unitId: props.stash.unitId,
        kit: kit.value,
        stories: stories.value,
        note: note.value,
        protectorId: design.value || null,
      }),
    )
    if (done) open.value = false
  } finally {
    busy.value = false
  }
}
const drop = () =>
  act(() =>
    editAlbum(props.albumId, {
      kind: 'dropPlan',
      revision: props.stash.albumRevision,
      unitId: props.stash.unitId,
    }),
  )
</script>

<template>
  <section class="room-panel mb-3" aria-labelledby="plan-head" data-testid="plan">
    <h2 id="plan-head" class="h6">Plan for {{ stash.title }}</h2>
    <template v-if="stash.plan">
      <p class="mb-1">
        <template v-if="stash.plan.kit">From the kit {{ stash.plan.kit }}. </template>
        {{ counted(stash.plan.told, 'story', 'stories') }} of {{ stash.plan.stories }} told. {{ stash.plan.pockets }}
      </p>
      <p v-if="stash.plan.note" class="mb-1">{{ stash.plan.note }}</p>
    </template>
    <p v-else-if="!open" class="mb-1">
      Plan this spread before its pictures exist: from which kit, how many stories, on which page design.
    </p>
    <form v-if="open" class="d-flex flex-wrap gap-3 align-items-end" @submit.prevent="save">
      <div>
        <label for="plan-kit" class="form-label mb-0">Kit</label>
        <BFormSelect id="plan-kit" v-model="kit" size="sm">
          <option value="">none</option>
          <option v-for="k in stash.kits" :key="k.name" :value="k.name">{{ k.name }} ({{ k.free }} free)</option>
        </BFormSelect>
      </div>
      <NumberField id="plan-stories" v-model="stories" label="Stories" :min="0" :max="20" />
      <div>
        <label for="plan-design" class="form-label mb-0">Page design</label>
        <BFormSelect id="plan-design" v-model="design" size="sm">
          <option value="">as it is</option>
          <option v-for="d in stash.designs" :key="d.protectorId" :value="d.protectorId">{{ d.name }}</option>
        </BFormSelect>
      </div>
      <div class="flex-grow-1">
        <label for="plan-note" class="form-label mb-0">Note</label>
        <BFormInput id="plan-note" v-model="note" size="sm" maxlength="400" />
      </div>
      <div class="d-flex gap-2">
        <BButton type="submit" size="sm" variant="primary" :disabled="busy">Save plan</BButton>
        <BButton size="sm" variant="outline-dark" @click="open = false">Cancel</BButton>
      </div>
    </form>
    <div v-else class="d-flex gap-2">
      <BButton size="sm" variant="outline-dark" @click="open = true">{{
        stash.plan ? 'Change plan' : 'Plan this spread'
      }}</BButton>
      <BButton v-if="stash.plan" size="sm" variant="outline-dark" @click="drop">Delete plan</BButton>
    </div>
  </section>
</template>
