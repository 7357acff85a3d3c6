<script setup lang="ts">
import { useZones } from '../dates/queries'
import type { AlbumDraft } from './draft'

/** Step 3: when it begins, how long it is, and how dates are written. */
const draft = defineModel<AlbumDraft>({ required: true })
const { data: zones } = useZones()
</script>

<template>
  <div class="row g-3">
    <div class="col-md-4">
      <label for="album-first" class="form-label">{{ draft.kind === 'documentedDay' ? 'The day' : 'First day' }}</label>
      <input id="album-first" v-model="draft.firstDay" type="date" class="form-control" />
    </div>
    <div v-if="draft.kind !== 'documentedDay'" class="col-md-3">
      <label for="album-weeks" class="form-label">{{ draft.kind === 'weekly' ? 'Weeks' : 'Days' }}</label>
      <input id="album-weeks" v-model="draft.units" type="number" min="1" max="530" class="form-control" />
    </div>
    <template v-else>
      <div class="col-md-4">
        <label for="album-waking-from" class="form-label">Awake from</label>
        <input id="album-waking-from" v-model="draft.wakingFrom" type="time" class="form-control" />
      </div>
      <div class="col-md-4">
        <label for="album-waking-until" class="form-label">until</label>
        <input id="album-waking-until" v-model="draft.wakingUntil" type="time" class="form-control" />
      </div>
    </template>
    <div v-if="draft.kind === 'weekly'" class="col-md-5">
      <label for="album-scheme" class="form-label">Weeks are counted</label>
      <BFormSelect id="album-scheme" v-model="draft.scheme">
        <option value="iso">from Monday, ISO 8601</option>
        <option value="sundayFirst">from Sunday, 1 January in week 1</option>
        <option value="fromFirstDay">from the album’s first day</option>
      </BFormSelect>
    </div>
    <div class="col-md-6">
      <label for="album-zone" class="form-label">Home time zone</label>
      <input id="album-zone" v-model="draft.homeZone" list="new-album-zones" class="form-control" autocomplete="off" />
      <datalist id="new-album-zones"><option v-for="z in zones ?? []" :key="z" :value="z"></option></datalist>
    </div>
    <div class="col-md-3">
      <label for="album-order" class="form-label">Dates</label>
      <BFormSelect id="album-order" v-model="draft.dateOrder">
        <option value="dayMonth">20 February</option>
        <option value="monthDay">February 20</option>
      </BFormSelect>
    </div>
    <div class="col-md-3">
      <label for="album-clock" class="form-label">Hours</label>
      <BFormSelect id="album-clock" v-model="draft.clock">
        <option value="twentyFour">19:00</option>
        <option value="twelve">7 p.m.</option>
      </BFormSelect>
    </div>
    <div class="col-md-6">
      <label for="album-measures" class="form-label">Show measures in</label>
      <BFormSelect id="album-measures" v-model="draft.measures">
        <option value="inches">inches</option>
        <option value="millimetres">millimetres</option>
      </BFormSelect>
    </div>
  </div>
</template>
