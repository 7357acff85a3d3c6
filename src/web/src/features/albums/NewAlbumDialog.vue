<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, Refusal } from '../../api/client'
import { unitPlace } from '../../shared/places'
import { keys } from '../../shared/queries'
import { missing, newDraft } from './draft'
import NewAlbumDates from './NewAlbumDates.vue'
import NewAlbumKind from './NewAlbumKind.vue'
import NewAlbumPages from './NewAlbumPages.vue'

/** A new album in three steps: what kind, which pages, which dates. */
const open = defineModel<boolean>({ required: true })
const router = useRouter()
const client = useQueryClient()

const steps = ['Kind and name', 'Pages', 'Dates']
const step = ref(1)
const draft = ref(newDraft())
const problem = ref('')
const busy = ref(false)
const heading = useTemplateRef('heading')

watch(open, (now) => {
  if (now) draft.value = newDraft()
  step.value = 1
  problem.value = ''
})

async function turn(to: number) {
  problem.value = ''
  step.value = to
  await nextTick()
  heading.value?.focus()
}

async function next() {
  problem.value = missing(draft.value, step.value)
  if (problem.value) return
  if (step.value < steps.length) await turn(step.value + 1)
  else await make()
}

async function make() {
  const { likeId, designs, units, wakingFrom, wakingUntil, school, ...same } = draft.value
  busy.value = true
  try {
    const album = await answer(
      api.POST('/api/albums', {
        body: {
          ...same,
          units: Number(units),
          designKeys: designs,
          school: same.kind === 'weekly' || same.kind === 'trip' ? school : 'spread',
          wakingFrom: `${wakingFrom}:00`,
          wakingUntil: `${wakingUntil}:00`,
          cardsOfAlbumId: likeId || null,
        },
      }),
    )
    client.setQueryData(keys.album(album.id), album)
    await client.invalidateQueries({ queryKey: keys.shelf })
    open.value = false
    await router.push(unitPlace(album.id, album.units[0]!.id, 'gather'))
  } catch (error) {
    problem.value = error instanceof Refusal ? error.message : 'The album could not be created. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <BModal v-model="open" title-tag="h2" title-class="h5 mb-0" title="New album" size="lg" no-footer scrollable>
    <form novalidate @submit.prevent="next">
      <h3 ref="heading" class="h6 mb-3" tabindex="-1" data-testid="new-album-step">
        Step {{ step }} of {{ steps.length }}: {{ steps[step - 1] }}
      </h3>
      <NewAlbumKind v-if="step === 1" v-model="draft" />
      <NewAlbumPages v-else-if="step === 2" v-model="draft" />
      <NewAlbumDates v-else v-model="draft" />
      <p v-if="problem" class="warning-chip mt-3" role="alert">{{ problem }}</p>
      <div class="d-flex justify-content-end gap-2 mt-3">
        <BButton v-if="step > 1" variant="outline-dark" class="me-auto" @click="turn(step - 1)">Back</BButton>
        <BButton variant="outline-dark" @click="open = false">Cancel</BButton>
        <BButton type="submit" variant="primary" :disabled="busy">{{
          step < steps.length ? 'Next' : 'Create album'
        }}</BButton>
      </div>
    </form>
  </BModal>
</template>
