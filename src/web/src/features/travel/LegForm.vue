<script setup lang="ts">
import { ref } from 'vue'
import type { AlbumEdit, TripLegView } from '../../api/client'
import { modes, namesOf } from './queries'

/** A leg as it is written by hand. */
const props = defineProps<{ leg?: TripLegView; revision: number; firstDay: string; busy: boolean }>()
const emit = defineEmits<{ save: [change: AlbumEdit]; close: [] }>()
const written = ref({
  day: props.firstDay,
  from: props.leg?.from ?? '',
  to: props.leg?.to ?? '',
  mode: props.leg?.mode ?? ('foot' as TripLegView['mode']),
  leaves: props.leg?.leaves ?? '',
  arrives: props.leg?.arrives ?? '',
  length: props.leg?.length ?? '',
  stops: props.leg?.stops.join(', ') ?? '',
  companions: props.leg?.companions.join(', ') ?? '',
  amount: props.leg?.price?.amount?.toString() ?? '',
  currency: props.leg?.price?.currency ?? '',
})
const id = (field: string) => `leg-${field}-${props.leg?.id ?? 'new'}`

const save = () =>
  emit('save', {
    kind: 'writeLeg',
    revision: props.revision,
    legId: props.leg?.id ?? null,
    day: written.value.day,
    from: written.value.from,
    to: written.value.to,
    mode: written.value.mode,
    leaves: written.value.leaves || null,
    arrives: written.value.arrives || null,
    length: written.value.length || null,
    stops: namesOf(written.value.stops),
    companions: namesOf(written.value.companions),
    price: written.value.amount
      ? { amount: Number(written.value.amount), currency: written.value.currency || 'EUR' }
      : null,
  })
</script>

<template>
  <form class="leg mb-2" @submit.prevent="save">
    <div>
      <label :for="id('day')" class="form-label mb-0">Day</label>
      <BFormInput :id="id('day')" v-model="written.day" type="date" size="sm" required />
    </div>
    <div>
      <label :for="id('from')" class="form-label mb-0">From</label>
      <BFormInput :id="id('from')" v-model="written.from" size="sm" maxlength="80" required />
    </div>
    <div>
      <label :for="id('to')" class="form-label mb-0">To</label>
      <BFormInput :id="id('to')" v-model="written.to" size="sm" maxlength="80" required />
    </div>
    <div>
      <label :for="id('mode')" class="form-label mb-0">By</label>
      <BFormSelect :id="id('mode')" v-model="written.mode" size="sm">
        <option v-for="[mode, name] in modes" :key="mode" :value="mode">{{ name }}</option>
      </BFormSelect>
    </div>
    <div>
      <label :for="id('leaves')" class="form-label mb-0">Leaves</label>
      <BFormInput :id="id('leaves')" v-model="written.leaves" type="time" size="sm" />
    </div>
    <div>
      <label :for="id('arrives')" class="form-label mb-0">Arrives</label>
      <BFormInput :id="id('arrives')" v-model="written.arrives" type="time" size="sm" />
    </div>
    <div>
      <label :for="id('length')" class="form-label mb-0">Length</label>
      <BFormInput
        :id="id('length')"
        v-model="written.length"
        size="sm"
        :placeholder="leg?.hasWay ? 'measured along its track' : '12.5 km'"
      />
    </div>
    <div>
      <label :for="id('stops')" class="form-label mb-0">Stops, with commas</label>
      <BFormInput :id="id('stops')" v-model="written.stops" size="sm" />
    </div>
    <div>
      <label :for="id('with')" class="form-label mb-0">Who came along</label>
      <BFormInput :id="id('with')" v-model="written.companions" size="sm" />
    </div>
    <div>
      <label :for="id('price')" class="form-label mb-0">Price</label>
      <BFormInput :id="id('price')" v-model="written.amount" type="number" min="0" step="0.01" size="sm" />
    </div>
    <div>
      <label :for="id('currency')" class="form-label mb-0">Currency</label>
      <BFormInput :id="id('currency')" v-model="written.currency" size="sm" maxlength="3" placeholder="EUR" />
    </div>
    <div class="d-flex gap-2 align-items-end">
      <BButton type="submit" size="sm" variant="primary" :disabled="busy">{{ leg ? 'Save' : 'Add' }}</BButton>
      <BButton size="sm" variant="outline-dark" @click="emit('close')">Cancel</BButton>
    </div>
  </form>
</template>

<style scoped>
.leg {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
  gap: 0.5rem 0.75rem;
}
</style>
