<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type AlbumView, type LabOrderView, type Money } from '../../api/client'
import { untilEnded } from '../../shared/jobs'
import { useNotices } from '../../shared/notices'
import MoneyField from '../../shared/MoneyField.vue'
import ProgressLine from '../../shared/ProgressLine.vue'
import { counted } from '../../shared/words'
import { useLabOrders } from './queries'

/** Orders at a lab: the files, how far each order is, and what did not come. */
const props = defineProps<{ album: AlbumView; unitIds: string[] }>()
const { data: orders, error } = useLabOrders(() => props.album.id)
const client = useQueryClient()
const notices = useNotices()
const choice = ref<'due' | 'all'>('due')
const running = ref<LabOrderView | null>(null)
const busy = ref(false)
const missing = ref<Record<string, string[]>>({})
const titleOf = (id: string | undefined) => props.album.units.find((u) => u.id === id)?.title ?? ''
const where = computed(() =>
  props.unitIds.length === 1
    ? titleOf(props.unitIds[0])
    : `${titleOf(props.unitIds[0])} to ${titleOf(props.unitIds.at(-1))}`,
)
const path = (id: string) => ({ params: { path: { id } } })

async function act(call: () => Promise<unknown>) {
  if (busy.value) return
  busy.value = true
  try {
    await call()
    await client.invalidateQueries({ queryKey: ['of', props.album.id] })
  } catch (refused) {
    notices.refused(refused)
  } finally {
    busy.value = false
  }
}
const order = (repeats?: string) =>
  act(async () => {
    const begun = await answer(
      api.POST('/api/lab-orders', {
        body: {
          requestKey: crypto.randomUUID(),
          unitIds: props.unitIds,
          choice: choice.value,
          pieceIds: null,
          repeats: repeats ?? null,
        },
      }),
    )
    const ended = await untilEnded(
      begun,
      () => answer(api.GET('/api/lab-orders/{id}', path(begun.id))),
      (now) => (running.value = now),
    )
    running.value = null
    if (ended.problem) notices.say(ended.problem)
  })
const cancel = () =>
  running.value
    ? answer(api.POST('/api/lab-orders/{id}/cancel', path(running.value.id))).catch((e: unknown) => notices.refused(e))
    : undefined
const steps = { ready: 'sent', sent: 'printed', printed: 'posted', posted: 'arrived' } as const
const stepWords = { sent: 'Sent', printed: 'Printed', posted: 'Posted', arrived: 'It has come' } as const
const next = (o: LabOrderView) => (o.at === 'arrived' ? null : steps[o.at])
const step = (o: LabOrderView) =>
  act(() => {
    const to = next(o)
    return to
      ? answer(
          api.POST('/api/lab-orders/{id}/step', { ...path(o.id), body: { to, missing: missing.value[o.id] ?? [] } }),
        )
      : Promise.resolve()
  })
function mark(id: string, file: string) {
  const now = missing.value[id] ?? []
  missing.value[id] = now.includes(file) ? now.filter((f) => f !== file) : [...now, file]
}
const standIn = (o: LabOrderView) => act(() => answer(api.POST('/api/lab-orders/{id}/stand-in', path(o.id))))
const prices = ref<Record<string, Money | null>>({})
const priceOf = (o: LabOrderView) => (o.id in prices.value ? prices.value[o.id]! : o.price)
const setPrice = (o: LabOrderView) =>
  act(() => answer(api.POST('/api/lab-orders/{id}/price', { ...path(o.id), body: { price: priceOf(o) } })))
const lost = (o: LabOrderView) => o.prints.filter((p) => p.missing)
</script>

<template>
  <div class="room" data-testid="lab">
    <section class="room-panel mb-3">
      <h2 class="h5">Order at a lab: {{ where }}</h2>
      <p>
        Pictures on photo paper as JPEG files of 300 pixels for each inch, small ones paired on 4x6, named in their
        order. They are drawn a little smaller, since labs print 2 % larger than the paper.
      </p>
      <div class="d-flex flex-wrap gap-3 align-items-center">
        <label class="form-check mb-0">
          <input v-model="choice" type="radio" class="form-check-input" name="lab-choice" value="due" />
          <span class="form-check-label">What is due</span>
        </label>
        <label class="form-check mb-0">
          <input v-model="choice" type="radio" class="form-check-input" name="lab-choice" value="all" />
          <span class="form-check-label">Everything</span>
        </label>
        <BButton size="sm" variant="primary" :disabled="busy" @click="order()">Make the files</BButton>
      </div>
      <div v-if="running" class="mt-2">
        <ProgressLine
          :done="running.pagesDone"
          :total="running.pagesTotal"
          :label="`${running.pagesDone} of ${running.pagesTotal} files drawn`"
        />
        <BButton size="sm" variant="outline-dark" class="mt-1" @click="cancel">Cancel</BButton>
      </div>
      <p v-if="error" class="warning-chip mt-2" role="alert">! {{ error.message }}</p>
    </section>
    <section
      v-for="(o, i) in orders ?? []"
      :key="o.id"
      class="room-panel mb-3"
      :aria-label="`Order ${(orders?.length ?? 0) - i}`"
    >
      <h3 class="h6">
        Order {{ (orders?.length ?? 0) - i
        }}<template v-if="o.prints.length">: {{ counted(o.prints.length, 'print') }}</template>
      </h3>
      <p v-if="o.problem" class="warning-chip">{{ o.problem }}</p>
      <template v-if="o.state === 'done'">
        <p class="mb-2" role="status" data-testid="order-words">{{ o.words }}</p>
        <ul class="prints">
          <li v-for="p in o.prints" :key="p.fileName">
            <label v-if="o.at === 'posted'" class="form-check mb-0">
              <input
                type="checkbox"
                class="form-check-input"
                :checked="(missing[o.id] ?? []).includes(p.fileName)"
                @change="mark(o.id, p.fileName)"
              />
              <span class="form-check-label">{{ p.fileName }} did not come</span>
            </label>
            <template v-else
              >{{ p.fileName }}
              <span class="visually-quiet">{{ p.pieces.map((x) => x.number).join(', ') }}</span>
              <strong v-if="p.missing"> missing</strong></template
            >
          </li>
        </ul>
        <form class="d-flex flex-wrap gap-2 align-items-end mb-2" @submit.prevent="setPrice(o)">
          <MoneyField
            :id="`lab-price-${o.id}`"
            :model-value="priceOf(o)"
            label="It cost, with postage"
            @update:model-value="prices[o.id] = $event"
          />
          <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Set price</BButton>
        </form>
        <div class="d-flex flex-wrap gap-2">
          <a
            class="btn btn-sm btn-outline-dark"
            :href="`/api/lab-orders/${o.id}/file`"
            :aria-label="`Download the files of order ${(orders?.length ?? 0) - i}`"
            download
            >Download the files</a
          >
          <BButton v-if="next(o)" size="sm" variant="outline-dark" :disabled="busy" @click="step(o)">{{
            stepWords[next(o)!]
          }}</BButton>
          <BButton v-if="next(o)" size="sm" variant="outline-dark" :disabled="busy" @click="standIn(o)"
            >One step at the stand-in lab</BButton
          >
          <BButton v-if="lost(o).length" size="sm" variant="primary" :disabled="busy" @click="order(o.id)"
            >Order {{ counted(lost(o).length, 'missing print') }} again</BButton
          >
        </div>
      </template>
    </section>
  </div>
</template>

<style scoped>
.prints {
  max-height: 12rem;
  overflow-y: auto;
  padding-left: 1.1rem;
}
</style>
