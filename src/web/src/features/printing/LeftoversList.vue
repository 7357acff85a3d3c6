<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { answer, api, type LeftoverView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { useLeftovers } from './queries'

/** What is left of sheets: of one print, to be decided; or everything that is kept. */
const props = defineProps<{ job?: string; measures: 'inches' | 'millimetres' }>()
const { data } = useLeftovers(
  () => props.job,
  () => props.measures,
)
const client = useQueryClient()
const notices = useNotices()
const says = {
  offered: 'not decided',
  sheet: 'kept as a sheet',
  cutOff: 'kept as an offcut',
  used: 'printed on since',
  thrownAway: 'not kept',
} as const

async function decide(left: LeftoverView, state: 'sheet' | 'cutOff' | 'thrownAway') {
  try {
    await answer(api.POST('/api/leftovers/{id}', { params: { path: { id: left.id } }, body: { state } }))
    await client.invalidateQueries({ queryKey: ['leftovers'] })
    await client.invalidateQueries({ queryKey: ['of'] })
  } catch (error) {
    notices.refused(error)
  }
}
</script>

<template>
  <p v-if="data && !data.length && !job" class="mb-0">Nothing is left of any sheet.</p>
  <ul v-if="data?.length" class="leftovers" data-testid="leftovers">
    <li v-for="left in data" :key="left.id">
      {{ left.words }}<template v-if="says[left.state]">: {{ says[left.state] }}</template>
      <span v-if="left.state !== 'used'" class="d-flex flex-wrap gap-1 mt-1">
        <BButton
          size="sm"
          variant="outline-dark"
          :aria-pressed="left.state === 'sheet'"
          :aria-label="`Keep the sheet: ${left.words}`"
          @click="decide(left, 'sheet')"
          >Keep the sheet</BButton
        >
        <BButton
          size="sm"
          variant="outline-dark"
          :aria-pressed="left.state === 'cutOff'"
          :aria-label="`Cut it off and keep it: ${left.words}`"
          @click="decide(left, 'cutOff')"
          >Cut it off and keep it</BButton
        >
        <BButton
          size="sm"
          variant="outline-dark"
          :aria-pressed="left.state === 'thrownAway'"
          :aria-label="`Do not keep: ${left.words}`"
          @click="decide(left, 'thrownAway')"
          >Do not keep</BButton
        >
      </span>
    </li>
  </ul>
</template>

<style scoped>
.leftovers {
  padding-left: 1.1rem;
}
.leftovers li {
  margin-bottom: 0.5rem;
}
</style>
