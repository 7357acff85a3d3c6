<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Money } from '../api/client'

/** A sum with its currency; empty when nobody said. */
defineProps<{ id: string; label: string }>()
const value = defineModel<Money | null>({ required: true })
const amount = ref('')
const currency = ref('EUR')
watch(
  value,
  (now) => {
    if (now?.amount === (amount.value === '' ? undefined : Number(amount.value)) && now?.currency === currency.value) {
      return
    }
    amount.value = now ? now.amount.toString() : ''
    currency.value = now?.currency ?? currency.value
  },
  { immediate: true },
)
const tell = () =>
  (value.value = amount.value === '' ? null : { amount: Number(amount.value), currency: currency.value || 'EUR' })
</script>

<template>
  <div>
    <label :for="id" class="form-label mb-0">{{ label }}</label>
    <div class="input-group input-group-sm">
      <input
        :id="id"
        v-model="amount"
        type="number"
        min="0"
        step="0.01"
        class="form-control amount"
        @change="tell"
        @input="tell"
      />
      <input
        v-model="currency"
        class="form-control currency"
        maxlength="3"
        :aria-label="`Currency: ${label}`"
        @input="tell"
      />
    </div>
  </div>
</template>

<style scoped>
.amount {
  min-width: 5.5rem;
}
.currency {
  max-width: 4.5rem;
  text-transform: uppercase;
}
</style>
