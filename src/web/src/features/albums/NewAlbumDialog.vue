<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, Refusal } from '../../api/client'
import { deviceStyle, deviceTime, deviceZone } from '../../shared/dates'
import PageThumb from '../binder/PageThumb.vue'
import { keys } from '../../shared/queries'
import { useCatalog, useDesigns } from '../binder/queries'
import { useZones } from '../dates/queries'
import { unitPlace } from '../../shared/places'

const open = defineModel<boolean>({ required: true })
const { data: catalog } = useCatalog()
const { data: zones } = useZones()
const { data: own } = useDesigns()
const router = useRouter()
const client = useQueryClient()

type Kind = 'weekly' | 'trip' | 'documentedDay' | 'countdown'
const kinds: { key: Kind; name: string; hint: string }[] = [
  { key: 'weekly', name: 'Week by week', hint: 'Facing pages for each week of a year.' },
  { key: 'trip', name: 'A trip, day by day', hint: 'Facing pages for each travel day, over zones and the date line.' },
  { key: 'documentedDay', name: 'One day, hour by hour', hint: 'A page for each waking hour.' },
  { key: 'countdown', name: 'Numbered days', hint: 'A page for each day of a countdown.' },
]

const today = deviceTime().slice(0, 10)
const style = deviceStyle()
const kind = ref<Kind>('weekly')
const name = ref('')
const firstDay = ref(`${today.slice(0, 4)}-01-01`)
const units = ref(52)
const scheme = ref<'iso' | 'sundayFirst' | 'fromFirstDay'>('iso')
const homeZone = ref(deviceZone())
const dateOrder = ref(style.order)
const clock = ref(style.clock)
const waking = ref({ from: '07:00', until: '22:00' })
const body = ref('9x12')
const chosen = ref<string[]>([])
const measures = ref<'inches' | 'millimetres'>('inches')
const problem = ref('')
const busy = ref(false)

const school = ref<'spread' | 'leaf'>('spread')
const all = computed(() => [...(catalog.value?.designs ?? []), ...(own.value ?? []).map((d) => d.design)])
const bodies = computed(() => [...new Set(all.value.map((d) => d.body))])
const designs = computed(() => all.value.filter((d) => d.body === body.value))
const unitWord = computed(() => (kind.value === 'weekly' ? 'Weeks' : 'Days'))

watch(
  designs,
  (list) => {
    chosen.value = list.slice(0, 1).map((d) => d.key)
  },
  { immediate: true },
)
watch(kind, (k) => {
  firstDay.value = k === 'weekly' ? `${today.slice(0, 4)}-01-01` : today
  units.value = { weekly: 52, trip: 9, documentedDay: 1, countdown: 24 }[k]
  body.value = k === 'weekly' ? '9x12' : '6x8'
})

async function make() {
  problem.value = ''
  if (!name.value.trim()) {
    problem.value = 'Give the album a name, such as “2026, week by week”.'
    return
  }
  if (!/^\d{4}-\d{2}-\d{2}$/.test(firstDay.value)) {
    problem.value = 'Choose the first day of the album.'
    return
  }
  busy.value = true
  try {
    const album = await answer(
      api.POST('/api/albums', {
        body: {
          name: name.value,
          kind: kind.value,
          firstDay: firstDay.value,
          units: Number(units.value),
          designKeys: chosen.value,
          measures: measures.value,
          school: kind.value === 'weekly' || kind.value === 'trip' ? school.value : 'spread',
          scheme: scheme.value,
          homeZone: homeZone.value,
          dateOrder: dateOrder.value,
          clock: clock.value,
          wakingFrom: `${waking.value.from}:00`,
          wakingUntil: `${waking.value.until}:00`,
        },
      }),
    )
    client.setQueryData(keys.album(album.id), album)
    await client.invalidateQueries({ queryKey: keys.shelf })
    open.value = false
    await router.push(unitPlace(album.id, album.units[0]!.id, 'gather'))
  } catch (error) {
    problem.value = error instanceof Refusal ? error.message : 'The album could not be made. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <BModal v-model="open" title-tag="h2" title-class="h5 mb-0" title="A new album" size="lg" no-footer scrollable>
    <form novalidate @submit.prevent="make">
      <fieldset class="mb-3">
        <legend class="form-label fs-6">What kind of album?</legend>
        <div class="kinds">
          <label v-for="k in kinds" :key="k.key" class="kind" :class="{ on: kind === k.key }">
            <span class="form-check m-0">
              <input v-model="kind" type="radio" name="album-kind" class="form-check-input" :value="k.key" />
              <span class="form-check-label fw-semibold">{{ k.name }}</span>
            </span>
            <span class="small visually-quiet">{{ k.hint }}</span>
          </label>
        </div>
      </fieldset>
      <div class="row g-3">
        <div class="col-md-6">
          <label for="album-name" class="form-label">Name</label>
          <input id="album-name" v-model="name" class="form-control" maxlength="200" autocomplete="off" />
        </div>
        <div class="col-md-3">
          <label for="album-first" class="form-label">{{ kind === 'documentedDay' ? 'The day' : 'First day' }}</label>
          <input id="album-first" v-model="firstDay" type="date" class="form-control" />
        </div>
        <div v-if="kind !== 'documentedDay'" class="col-md-3">
          <label for="album-weeks" class="form-label">{{ unitWord }}</label>
          <input id="album-weeks" v-model="units" type="number" min="1" max="530" class="form-control" />
        </div>
        <template v-else>
          <div class="col-md-3">
            <label for="album-waking-from" class="form-label">Awake from</label>
            <input id="album-waking-from" v-model="waking.from" type="time" class="form-control" />
          </div>
          <div class="col-md-3">
            <label for="album-waking-until" class="form-label">until</label>
            <input id="album-waking-until" v-model="waking.until" type="time" class="form-control" />
          </div>
        </template>
        <div v-if="kind === 'weekly'" class="col-md-6">
          <label for="album-scheme" class="form-label">Weeks are counted</label>
          <BFormSelect id="album-scheme" v-model="scheme">
            <option value="iso">from Monday, ISO 8601</option>
            <option value="sundayFirst">from Sunday, 1 January in week 1</option>
            <option value="fromFirstDay">from the album's first day</option>
          </BFormSelect>
        </div>
        <div class="col-md-6">
          <label for="album-zone" class="form-label">Home zone</label>
          <input id="album-zone" v-model="homeZone" list="new-album-zones" class="form-control" autocomplete="off" />
          <datalist id="new-album-zones"><option v-for="z in zones ?? []" :key="z" :value="z"></option></datalist>
        </div>
        <div class="col-md-3">
          <label for="album-order" class="form-label">Dates</label>
          <BFormSelect id="album-order" v-model="dateOrder">
            <option value="dayMonth">20 February</option>
            <option value="monthDay">February 20</option>
          </BFormSelect>
        </div>
        <div class="col-md-3">
          <label for="album-clock" class="form-label">Hours</label>
          <BFormSelect id="album-clock" v-model="clock">
            <option value="twentyFour">19:00</option>
            <option value="twelve">7 p.m.</option>
          </BFormSelect>
        </div>
        <div v-if="kind === 'weekly' || kind === 'trip'" class="col-md-6">
          <label for="album-school" class="form-label">{{ kind === 'weekly' ? 'A week' : 'A day' }} takes</label>
          <BFormSelect id="album-school" v-model="school">
            <option value="spread">facing pages</option>
            <option value="leaf">the two faces of one leaf</option>
          </BFormSelect>
        </div>
        <div class="col-md-6">
          <label for="album-body" class="form-label">Page body (width x height, inches)</label>
          <BFormSelect id="album-body" v-model="body">
            <option v-for="b in bodies" :key="b" :value="b">{{ b }}</option>
          </BFormSelect>
        </div>
        <div class="col-md-6">
          <label for="album-measures" class="form-label">Show measures in</label>
          <BFormSelect id="album-measures" v-model="measures">
            <option value="inches">inches</option>
            <option value="millimetres">millimetres</option>
          </BFormSelect>
        </div>
      </div>
      <fieldset class="mt-3">
        <legend class="form-label fs-6">Page protectors you use (the first one chosen starts every leaf)</legend>
        <div class="designs">
          <label
            v-for="design in designs"
            :key="design.key"
            class="design"
            :class="{ on: chosen.includes(design.key) }"
          >
            <PageThumb :design="design" />
            <span class="form-check m-0">
              <input v-model="chosen" type="checkbox" class="form-check-input" :value="design.key" />
              <span class="form-check-label">{{ design.name }}</span>
            </span>
          </label>
        </div>
        <p class="form-text">Pockets count as their nominal size until you measure one.</p>
      </fieldset>
      <p v-if="problem" class="warning-chip" role="alert">{{ problem }}</p>
      <div class="d-flex justify-content-end gap-2">
        <BButton variant="outline-dark" @click="open = false">Cancel</BButton>
        <BButton type="submit" variant="primary" :disabled="busy">Create album</BButton>
      </div>
    </form>
  </BModal>
</template>

<style scoped>
.kinds,
.designs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
}
.kind {
  flex: 1 1 20rem;
  padding: 0.5rem 0.75rem;
  border: 2px solid var(--line);
  border-radius: 0.5rem;
  cursor: pointer;
}
.design {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 0.5rem;
  padding: 0.6rem;
  border: 2px solid var(--line);
  border-radius: 0.5rem;
  cursor: pointer;
}
.kind.on,
.design.on {
  border-color: var(--zest);
  background: var(--zest-pale);
}
</style>
