<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type PrinterView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { usePrinters } from './queries'
import { asBytes } from '../../shared/upload'

/** Printers by name: a test sheet shows what each does to a sheet, and sheets make up for it when asked. */
const { data: printers, error } = usePrinters()
const client = useQueryClient()
const notices = useNotices()
const name = ref('')
const paper = ref('letter')
const measures = ref<Record<string, { across: string; down: string; fromLeft: string; fromTop: string }>>({})
const none = () => ({ across: '', down: '', fromLeft: '', fromTop: '' })
const of = (id: string) => (measures.value[id] ??= none())
const busy = ref(false)

async function act(call: () => Promise<unknown>, done?: string) {
  if (busy.value) return
  busy.value = true
  try {
    await call()
    await client.invalidateQueries({ queryKey: ['printers'] })
    if (done) notices.done(done)
  } catch (refused) {
    notices.refused(refused)
  } finally {
    busy.value = false
  }
}
const path = (id: string) => ({ params: { path: { id } } })
const onPaper = (id: string) => ({ params: { path: { id }, query: { paper: paper.value } } })

async function add() {
  const written = name.value.trim()
  if (!written) return
  await act(() => answer(api.POST('/api/printers', { body: { name: written } })), `Added the printer ${written}.`)
  name.value = ''
}
const measure = (printer: PrinterView) =>
  act(() => {
    const m = of(printer.id)
    const body = { across: m.across, down: m.down, fromLeft: m.fromLeft || null, fromTop: m.fromTop || null }
    return answer(api.POST('/api/printers/{id}/measures', { ...path(printer.id), body }))
  })
const standIn = (printer: PrinterView) =>
  act(
    () => answer(api.POST('/api/printers/{id}/stand-in', onPaper(printer.id))),
    'The stand-in printer printed the test sheet, and its scan was read.',
  )
async function read(printer: PrinterView, event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  await act(() =>
    answer(
      api.POST('/api/printers/{id}/scan', {
        ...onPaper(printer.id),
        ...asBytes(file),
      }),
    ),
  )
  input.value = ''
}
const backs = ref<Record<string, { right: string; down: string }>>({})
const backOf = (printer: PrinterView) =>
  (backs.value[printer.id] ??= { right: `${printer.backRightMm} mm`, down: `${printer.backDownMm} mm` })
const setBack = (printer: PrinterView) =>
  act(
    () => answer(api.POST('/api/printers/{id}/back', { ...path(printer.id), body: backOf(printer) })),
    'Backs are drawn back by as much.',
  )
const makeUp = (printer: PrinterView, makesUp: boolean) =>
  act(() => answer(api.POST('/api/printers/{id}/make-up', { ...path(printer.id), body: { makesUp } })))
const remove = (printer: PrinterView) =>
  act(() => answer(api.DELETE('/api/printers/{id}', path(printer.id))), `Deleted the printer ${printer.name}.`)
</script>

<template>
  <div class="room" data-testid="printers">
    <section class="room-panel mb-3">
      <h2 class="h5">Printers</h2>
      <p>
        Many printers shrink a sheet a little, and a 4x6 comes out short. Print the test sheet once, measure it, and you
        know.
      </p>
      <form class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="add">
        <div>
          <label for="printer-name" class="form-label mb-0">Name</label>
          <input id="printer-name" v-model="name" class="form-control form-control-sm" maxlength="80" />
        </div>
        <BButton type="submit" size="sm" variant="primary" :disabled="busy">Add printer</BButton>
        <div>
          <label for="test-paper" class="form-label mb-0">Paper of the test sheet</label>
          <BFormSelect id="test-paper" v-model="paper" size="sm">
            <option value="letter">Letter</option>
            <option value="a4">A4</option>
          </BFormSelect>
        </div>
      </form>
      <p v-if="error" class="warning-chip mt-2" role="alert">! {{ error.message }}</p>
    </section>
    <section
      v-for="printer in printers ?? []"
      :key="printer.id"
      class="room-panel mb-3"
      :aria-label="`Printer ${printer.name}`"
    >
      <div class="d-flex flex-wrap gap-3 align-items-center">
        <h3 class="h6 m-0">{{ printer.name }}</h3>
        <a
          class="btn btn-sm btn-outline-dark"
          :href="`/api/printers/${printer.id}/test-sheet.pdf?paper=${paper}`"
          :aria-label="`Test sheet (PDF) of ${printer.name}`"
          download
          >Test sheet (PDF)</a
        >
        <BButton
          size="sm"
          variant="outline-dark"
          :disabled="busy"
          :aria-label="`Print on the stand-in printer as ${printer.name}`"
          @click="standIn(printer)"
          >Print on the stand-in printer</BButton
        >
        <BButton
          size="sm"
          variant="outline-dark"
          :disabled="busy"
          :aria-label="`Delete printer ${printer.name}`"
          @click="remove(printer)"
          >Delete printer</BButton
        >
      </div>
      <p class="mt-2 mb-2" role="status" data-testid="verdict">
        {{ printer.verdict ?? 'Not measured yet: print the test sheet and type what you measure.' }}
      </p>
      <BFormCheckbox
        v-if="printer.verdict && !printer.isTrue"
        :id="`make-up-${printer.id}`"
        :model-value="printer.makesUp"
        @update:model-value="makeUp(printer, !!$event)"
        >Make up for it on the sheets, where no setting mends it</BFormCheckbox
      >
      <form class="measures" @submit.prevent="measure(printer)">
        <div>
          <label :for="`across-${printer.id}`" class="form-label mb-0">Line across</label>
          <input
            :id="`across-${printer.id}`"
            v-model="of(printer.id).across"
            class="form-control form-control-sm"
            placeholder="150 mm"
            required
          />
        </div>
        <div>
          <label :for="`down-${printer.id}`" class="form-label mb-0">Line down</label>
          <input
            :id="`down-${printer.id}`"
            v-model="of(printer.id).down"
            class="form-control form-control-sm"
            placeholder="150 mm"
            required
          />
        </div>
        <div>
          <label :for="`left-${printer.id}`" class="form-label mb-0">From the left edge</label>
          <input
            :id="`left-${printer.id}`"
            v-model="of(printer.id).fromLeft"
            class="form-control form-control-sm"
            placeholder="30 mm"
          />
        </div>
        <div>
          <label :for="`top-${printer.id}`" class="form-label mb-0">From the top edge</label>
          <input
            :id="`top-${printer.id}`"
            v-model="of(printer.id).fromTop"
            class="form-control form-control-sm"
            placeholder="30 mm"
          />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Use these measures</BButton>
        <div>
          <label :for="`scan-${printer.id}`" class="form-label mb-0">Scan of the test sheet</label>
          <input
            :id="`scan-${printer.id}`"
            type="file"
            accept="image/*"
            class="form-control form-control-sm"
            @change="read(printer, $event)"
          />
        </div>
      </form>
      <form class="measures" @submit.prevent="setBack(printer)">
        <p class="w-100 mb-0 form-text">
          Hold a sheet that is printed on both sides against the light: how far does its back lie from where it belongs?
          A minus sign stands for left or up.
        </p>
        <div>
          <label :for="`back-right-${printer.id}`" class="form-label mb-0">Back to the right</label>
          <input
            :id="`back-right-${printer.id}`"
            v-model="backOf(printer).right"
            class="form-control form-control-sm"
          />
        </div>
        <div>
          <label :for="`back-down-${printer.id}`" class="form-label mb-0">Back down</label>
          <input :id="`back-down-${printer.id}`" v-model="backOf(printer).down" class="form-control form-control-sm" />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Use for backs</BButton>
      </form>
    </section>
  </div>
</template>

<style scoped>
.measures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: flex-end;
  margin-top: 0.5rem;
}
.measures input:not([type='file']) {
  width: 9rem;
}
</style>
