<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { dayText, daysAfter, monthText } from '../../shared/dates'
import type { AlbumView, UnitSummary } from '../../api/client'
import { singleKeys } from '../../shared/shortcuts'
import { nearestScope, place, tabOf, unitPlace, type Scope, type TabKey } from '../../shared/places'
import { useTape } from './tape'

const props = defineProps<{ album: AlbumView; current: string; scope?: Scope; tab: TabKey }>()
const router = useRouter()
const units = computed(() => props.album.units)
const tape = useTape(
  () => props.album,
  () => props.tab,
)
const strip = ref<HTMLElement>()
const dragged = ref<string | null>(null)

const thisWeek = computed(() => {
  const { today } = props.album
  return units.value.find((u) => u.firstDay <= today && u.lastDay >= today)?.id
})

/** A week counts to the month of its Thursday, as ISO weeks count to the year of it; a day to its own. */
const middle = (unit: UnitSummary) => (props.album.kind === 'weekly' ? daysAfter(unit.firstDay, 3) : unit.firstDay)
const month = (unit: UnitSummary) => middle(unit).slice(0, 7)

/** A month is printed over its first week or day. */
const monthOf = (unit: UnitSummary, i: number) => {
  const hourly = props.album.kind === 'documentedDay'
  if (i > 0 && (hourly || month(units.value[i - 1]!) === month(unit))) return ''
  if (hourly) return dayText(unit.firstDay, props.album.dateOrder)
  return monthText(middle(unit), i === 0 || month(unit).endsWith('-01'))
}

/** All of it is on paper, or in its pockets: the bar has a line under it, a thin or a thick one. */
const paper = (unit: UnitSummary) =>
  unit.piecesPlaced > 0 && unit.piecesTucked >= unit.piecesPlaced
    ? 'tucked'
    : unit.piecesPlaced > 0 && unit.piecesPrinted >= unit.piecesPlaced
      ? 'printed'
      : ''
const share = (unit: UnitSummary) => (unit.pockets === 0 ? 0 : Math.min(1, unit.piecesPlaced / unit.pockets))
const stateOf = (unit: UnitSummary) => {
  const parts = [
    counted(unit.photos, 'photo'),
    counted(unit.cardsTold, 'card'),
    `${unit.piecesPlaced} of ${counted(unit.pockets, 'pocket')} filled`,
    ...(unit.piecesPrinted ? [`${unit.piecesPrinted} printed`] : []),
    ...(unit.piecesTucked ? [`${unit.piecesTucked} tucked in`] : []),
  ]
  const now = unit.id === thisWeek.value ? (props.album.kind === 'weekly' ? ', this week' : ', today') : ''
  const title = unit.title.includes(unit.mark) ? unit.title : `${unit.mark}, ${unit.title}`
  return `${title}, ${unit.label}: ${unit.leftOut ? 'left out on purpose, ' : ''}${parts.join(', ')}${now}`
}

/** Where a tick leads: the same step at that week or day, or its spread from a step that has none. */
const placeOf = (id: string) => {
  const tab = tabOf(props.tab)
  const scope = nearestScope(tab.rooms, { kind: 'unit', from: id }, id)
  return scope.kind === 'unit' ? place(props.album.id, scope, tab.key) : unitPlace(props.album.id, id, 'place')
}

/** The stretch that is looked at, or the one week or day; nothing when it is the whole album. */
const within = computed(() => {
  const { scope } = props
  if (!scope || scope.kind === 'album') return new Set<string>()
  const at = (id: string) => units.value.findIndex((u) => u.id === id)
  const last = scope.kind === 'stretch' ? at(scope.until) : at(scope.from)
  return new Set(units.value.slice(at(scope.from), last + 1).map((u) => u.id))
})

function go(id: string | null | undefined) {
  if (id && !(id === props.current && props.scope?.kind === 'unit')) void router.push(placeOf(id))
}

/** What a key does with the unit whose tick has the focus. */
const acts: Record<string, (unit: UnitSummary) => unknown> = {
  m: (unit) => tape.merge(unit),
  s: (unit) => tape.split(unit),
  l: (unit) => tape.leaveOut(unit, !unit.leftOut),
  n: () => tape.grow(1, true),
}

function onKey(event: KeyboardEvent, i: number) {
  const list = units.value
  const act = acts[event.key]
  if (act && singleKeys.value && !event.ctrlKey && !event.metaKey && !event.altKey) {
    event.preventDefault()
    event.stopPropagation()
    void act(list[i]!)
    return
  }
  const to = { ArrowLeft: i - 1, ArrowRight: i + 1, Home: 0, End: list.length - 1 }[event.key]
  if (to === undefined) return
  event.preventDefault()
  const unit = list[Math.min(Math.max(to, 0), list.length - 1)]
  strip.value?.querySelector<HTMLElement>(`[data-unit="${unit?.id}"]`)?.focus()
}

function under(event: PointerEvent): string | null {
  const element = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-unit]')
  return element?.dataset.unit ?? null
}

function onDown(event: PointerEvent) {
  if (event.button === 0) dragged.value = under(event)
}

function onMove(event: PointerEvent) {
  if (dragged.value !== null && event.buttons === 1) dragged.value = under(event) ?? dragged.value
}

function onUp() {
  const to = dragged.value
  dragged.value = null
  go(to)
}

function scrollToCurrent() {
  const box = strip.value
  // The tick's list item, since its offset is measured from the strip.
  const tick = box?.querySelector<HTMLElement>(`[data-unit="${props.current}"]`)?.parentElement
  if (box && tick) box.scrollLeft = tick.offsetLeft - box.clientWidth / 2 + tick.offsetWidth / 2
}

onMounted(scrollToCurrent)
watch(
  () => [props.current, units.value.length],
  () => void nextTick(scrollToCurrent),
)
</script>

<template>
  <nav
    class="tape"
    data-bs-theme="light"
    :aria-label="album.kind === 'weekly' ? 'Weeks of the album' : 'Days of the album'"
  >
    <ol ref="strip" class="tape-strip" @pointerdown="onDown" @pointermove="onMove" @pointerup="onUp">
      <li
        v-for="(unit, i) in units"
        :key="unit.id"
        :style="{ flexBasis: `${(album.kind === 'documentedDay' ? 54 : 34) * unit.weight}px` }"
      >
        <span class="tape-month" aria-hidden="true">{{ monthOf(unit, i) }}</span>
        <a
          class="tick"
          :class="{
            open: within.has(unit.id),
            hover: unit.id === dragged,
            today: unit.id === thisWeek,
            out: unit.leftOut,
          }"
          :data-unit="unit.id"
          :href="router.resolve(placeOf(unit.id)).href"
          :aria-current="within.has(unit.id) ? 'page' : undefined"
          :aria-label="stateOf(unit)"
          :title="stateOf(unit)"
          :tabindex="unit.id === current || (current === '' && i === 0) ? 0 : -1"
          draggable="false"
          @click.prevent="go(unit.id)"
          @keydown="onKey($event, i)"
        >
          <span class="tick-marks" aria-hidden="true"></span>
          <span class="tick-number" aria-hidden="true">{{ unit.mark }}</span>
          <span class="tick-fill" aria-hidden="true">
            <span class="gathered" :class="{ on: unit.photos > 0 }"></span>
            <span class="told" :class="{ on: unit.cardsTold > 0 }"></span>
            <span class="placed" :class="paper(unit)"><span :style="{ width: `${share(unit) * 100}%` }"></span></span>
          </span>
        </a>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.tape {
  background: linear-gradient(#f8e8b6, #efd88f);
  border-bottom: 1px solid #b99b4c;
  border-top: 1px solid #cdb26a;
}
.tape-strip {
  display: flex;
  margin: 0;
  padding: 0 1rem;
  list-style: none;
  overflow-x: auto;
  scrollbar-width: thin;
  user-select: none;
  position: relative;
}
.tape-strip li {
  position: relative;
  flex: 0 0 34px;
  padding-top: 17px;
}
.tape-month {
  position: absolute;
  top: 0;
  left: 3px;
  font-size: 0.72rem;
  font-weight: 600;
  color: #5d4a14;
  white-space: nowrap;
}
.tick {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  height: 44px;
  padding: 0 3px;
  color: var(--ink);
  text-decoration: none;
  border-left: 1px solid #7a6423;
  touch-action: pan-x;
}
.tick-marks {
  width: 100%;
  height: 6px;
  background: repeating-linear-gradient(to right, transparent 0 4px, #94793060 4px 5px);
}
.tick-number {
  font-weight: 600;
  font-size: 0.8rem;
  line-height: 1.1;
}
.tick-fill {
  display: grid;
  grid-template-columns: 6px 6px 1fr;
  gap: 2px;
  width: 100%;
  align-items: center;
}
.gathered,
.told {
  width: 6px;
  height: 6px;
  border: 1px solid #6b561b;
}
.gathered {
  border-radius: 50%;
}
.gathered.on,
.told.on {
  background: #4a3b0d;
}
.placed {
  height: 7px;
  border: 1px solid #6b561b;
  background: #fff8df;
}
.placed.printed {
  box-shadow: 0 2px 0 -0.5px currentColor;
}
.placed.tucked {
  box-shadow: 0 4px 0 -0.5px currentColor;
}
.placed span {
  display: block;
  height: 100%;
  background: var(--zest);
}
.tick.open {
  background: var(--ink);
  color: #fff;
}
.tick.open .placed {
  border-color: #fff;
}
.tick.open .gathered,
.tick.open .told {
  border-color: #fff;
}
.tick.open .gathered.on,
.tick.open .told.on {
  background: #fff;
}
.tick.out:not(.open) {
  background: repeating-linear-gradient(135deg, transparent 0 5px, #7a642355 5px 8px);
}
.tick.hover:not(.open) {
  background: #ffffff80;
}
.tick.today .tick-number::after {
  content: '▾';
  color: var(--zest);
  margin-left: 1px;
}
.tick.open.today .tick-number::after {
  color: #ffb57a;
}
</style>
