<script setup lang="ts">
import { ref } from 'vue'
import type { AlbumEdit, TripLegView, TripView } from '../../api/client'
import LegForm from './LegForm.vue'
import { modes } from './queries'

/** The legs of a trip in their order; each is changed where it stands. */
const props = defineProps<{
  trip: TripView
  firstDay: string
  busy: boolean
  edit: (change: AlbumEdit) => Promise<unknown>
}>()
/** The leg that is being changed; `new` for one that is being written. */
const open = ref('')

const by = (leg: TripLegView) => modes.find(([mode]) => mode === leg.mode)![1]
const times = (leg: TripLegView) =>
  [leg.leaves, leg.arrives]
    .map((t) => t ?? '')
    .join(' – ')
    .replace(/^ – $/, '')
const about = (leg: TripLegView) =>
  [
    leg.stops.length ? `stops: ${leg.stops.join(', ')}` : '',
    leg.climb ? `${leg.climb} up` : '',
    leg.companions.length ? `with ${leg.companions.join(', ')}` : '',
    leg.price ? `${leg.price.amount.toFixed(2)} ${leg.price.currency}` : '',
    leg.source === 'pictures' ? 'from the pictures: at least' : '',
    leg.gaps ? `track lost ${leg.gaps === 1 ? 'once' : `${leg.gaps} times`}` : '',
  ]
    .filter((part) => part)
    .join(' · ')

async function save(change: AlbumEdit) {
  if (await props.edit(change)) open.value = ''
}
const remove = (leg: TripLegView) => props.edit({ kind: 'removeLeg', revision: props.trip.revision, legId: leg.id })
</script>

<template>
  <section class="room-panel mb-3" aria-labelledby="legs-head">
    <div class="d-flex gap-2 align-items-center mb-2">
      <h3 id="legs-head" class="h6 mb-0">Legs</h3>
      <span v-for="total in trip.byMode" :key="total.name" class="visually-quiet"
        >{{ total.name }}: {{ total.total }}</span
      >
      <BButton v-if="open !== 'new'" size="sm" variant="outline-dark" class="ms-auto" @click="open = 'new'"
        >Add a leg</BButton
      >
    </div>
    <LegForm
      v-if="open === 'new'"
      :revision="trip.revision"
      :first-day="trip.legs.at(-1)?.day ?? firstDay"
      :busy="busy"
      @save="save"
      @close="open = ''"
    />
    <div v-if="trip.legs.length" class="table-responsive">
      <table class="table table-sm mb-0">
        <thead>
          <tr>
            <th scope="col">Day</th>
            <th scope="col">From and to</th>
            <th scope="col">By</th>
            <th scope="col">Times</th>
            <th scope="col">Length</th>
            <th scope="col"><span class="visually-hidden">Change</span></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="leg in trip.legs" :key="leg.id">
            <tr v-if="open !== leg.id">
              <td class="text-nowrap">{{ leg.label }}</td>
              <td>
                {{ leg.from }} to {{ leg.to }}
                <span v-if="about(leg)" class="d-block visually-quiet">{{ about(leg) }}</span>
              </td>
              <td class="text-nowrap">{{ by(leg) }}</td>
              <td class="text-nowrap">{{ times(leg) }}</td>
              <td class="text-nowrap">{{ leg.length ?? '' }}</td>
              <td class="text-nowrap text-end">
                <BButton
                  size="sm"
                  variant="outline-dark"
                  :aria-label="`Change the leg from ${leg.from} to ${leg.to}`"
                  @click="open = leg.id"
                  >Change</BButton
                >
                <BButton
                  size="sm"
                  variant="outline-dark"
                  class="ms-1"
                  :disabled="busy"
                  :aria-label="`Remove the leg from ${leg.from} to ${leg.to}`"
                  @click="remove(leg)"
                  >Remove</BButton
                >
              </td>
            </tr>
            <tr v-else>
              <td colspan="6">
                <LegForm
                  :leg="leg"
                  :revision="trip.revision"
                  :first-day="leg.day"
                  :busy="busy"
                  @save="save"
                  @close="open = ''"
                />
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
  </section>
</template>
