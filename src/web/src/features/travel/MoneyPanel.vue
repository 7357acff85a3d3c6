<script setup lang="ts">
import { ref, watch } from 'vue'
import type { AlbumEdit, ExpenseView, TripView } from '../../api/client'

/** What a trip cost, by kind and currency, with the rates the keeper paid. */
const props = defineProps<{
  trip: TripView
  firstDay: string
  busy: boolean
  edit: (change: AlbumEdit) => Promise<unknown>
}>()
const kinds: readonly [ExpenseView['for'], string][] = [
  ['food', 'Food'],
  ['lodging', 'Lodging'],
  ['travel', 'Travel'],
  ['tickets', 'Tickets'],
  ['things', 'Things'],
  ['other', 'Other'],
]
const nameOf = (kind: ExpenseView['for']) => kinds.find(([key]) => key === kind)![1]
const fresh = () => ({
  id: null as string | null,
  day: props.trip.expenses.at(-1)?.day ?? props.trip.legs[0]?.day ?? props.firstDay,
  kind: 'food' as ExpenseView['for'],
  amount: '',
  currency: props.trip.homeCurrency,
  note: '',
})
const written = ref(fresh())
const rates = ref('')
const home = ref('')
watch(
  () => props.trip,
  (trip) => {
    home.value = trip.homeCurrency
    rates.value = trip.rates.map((r) => `${r.currency} ${r.inHome}`).join(', ')
  },
  { immediate: true },
)

async function save() {
  const done = await props.edit({
    kind: 'writeExpense',
    revision: props.trip.revision,
    expenseId: written.value.id,
    day: written.value.day,
    for: written.value.kind,
    amount: { amount: Number(written.value.amount), currency: written.value.currency },
    note: written.value.note,
  })
  if (done) written.value = fresh()
}

const change = (e: ExpenseView) =>
  (written.value = {
    id: e.id,
    day: e.day,
    kind: e.for,
    amount: e.amount.amount.toString(),
    currency: e.amount.currency,
    note: e.note,
  })

const setRates = () =>
  props.edit({
    kind: 'setRates',
    revision: props.trip.revision,
    homeCurrency: home.value,
    rates: rates.value
      .split(',')
      .map((part) => part.trim().split(/\s+/))
      .filter(([currency]) => currency)
      .map(([currency, rate]) => ({ currency: currency!, inHome: Number(rate) || 0 })),
  })
</script>

<template>
  <section class="room-panel" aria-labelledby="money-head">
    <div class="d-flex gap-2 align-items-center mb-2 flex-wrap">
      <h3 id="money-head" class="h6 mb-0">What it cost</h3>
      <span v-for="total in trip.byKind" :key="total.name" class="visually-quiet"
        >{{ total.name }}: {{ total.total }}</span
      >
    </div>
    <p v-if="trip.withoutRate.length" class="warning-chip">
      ! Without a rate, so in no total: {{ trip.withoutRate.join(', ') }}. Write what one costs below.
    </p>
    <form class="d-flex flex-wrap gap-2 align-items-end mb-2" @submit.prevent="save">
      <div>
        <label for="expense-day" class="form-label mb-0">Day</label>
        <BFormInput id="expense-day" v-model="written.day" type="date" size="sm" required />
      </div>
      <div>
        <label for="expense-kind" class="form-label mb-0">For</label>
        <BFormSelect id="expense-kind" v-model="written.kind" size="sm">
          <option v-for="[key, name] in kinds" :key="key" :value="key">{{ name }}</option>
        </BFormSelect>
      </div>
      <div>
        <label for="expense-amount" class="form-label mb-0">Amount</label>
        <BFormInput
          id="expense-amount"
          v-model="written.amount"
          type="number"
          min="0"
          step="0.01"
          size="sm"
          required
          class="amount"
        />
      </div>
      <div>
        <label for="expense-currency" class="form-label mb-0">Currency</label>
        <BFormInput id="expense-currency" v-model="written.currency" size="sm" maxlength="3" required class="amount" />
      </div>
      <div class="flex-grow-1">
        <label for="expense-note" class="form-label mb-0">Note</label>
        <BFormInput id="expense-note" v-model="written.note" size="sm" maxlength="200" />
      </div>
      <BButton type="submit" size="sm" variant="primary" :disabled="busy">{{
        written.id ? 'Save' : 'Note expense'
      }}</BButton>
      <BButton v-if="written.id" size="sm" variant="outline-dark" @click="written = fresh()">Cancel</BButton>
    </form>
    <ul v-if="trip.expenses.length" class="list-unstyled mb-3">
      <li v-for="e in trip.expenses" :key="e.id" class="d-flex gap-2 align-items-center mb-1">
        <span
          >{{ e.label }} · {{ nameOf(e.for) }} · {{ e.amount.amount.toFixed(2) }} {{ e.amount.currency
          }}{{ e.note ? ` · ${e.note}` : '' }}</span
        >
        <BButton
          size="sm"
          variant="outline-dark"
          class="ms-auto"
          :aria-label="`Change ${e.amount.amount} ${e.amount.currency} of ${e.label}`"
          @click="change(e)"
          >Change</BButton
        >
        <BButton
          size="sm"
          variant="outline-dark"
          :disabled="busy"
          :aria-label="`Remove ${e.amount.amount} ${e.amount.currency} of ${e.label}`"
          @click="edit({ kind: 'removeExpense', revision: trip.revision, expenseId: e.id })"
          >Remove</BButton
        >
      </li>
    </ul>
    <form class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="setRates">
      <div>
        <label for="home-currency" class="form-label mb-0">Sums in</label>
        <BFormInput id="home-currency" v-model="home" size="sm" maxlength="3" required class="amount" />
      </div>
      <div class="flex-grow-1">
        <label for="rates" class="form-label mb-0">What one of another currency cost</label>
        <BFormInput id="rates" v-model="rates" size="sm" placeholder="GBP 1.17, CHF 1.05" />
      </div>
      <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Set rates</BButton>
    </form>
  </section>
</template>

<style scoped>
.amount {
  width: 6rem;
}
</style>
