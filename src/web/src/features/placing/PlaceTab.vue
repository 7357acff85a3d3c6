<script setup lang="ts">
import { refDebounced, useEventListener } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { counted } from '../../shared/words'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { AlbumView, UnitView } from '../../api/client'
import { useBalance } from '../lookingOver/queries'
import { useHand, type InHand, type PocketRef } from './hand'
import { usePocketsFor } from './queries'
import CalmColours from '../lookingOver/CalmColours.vue'
import MatSpread from './MatSpread.vue'
import { useNotices } from '../../shared/notices'
import { useRefresh } from '../../shared/queries'
import { addPasted, picturesIn } from './paste'
import ThingDrawer from './ThingDrawer.vue'
import TrayStrip from './TrayStrip.vue'
import type { Edit } from './unit'

const props = defineProps<{ unit: UnitView; album: AlbumView; edit: (change: Edit) => Promise<unknown> }>()
const emit = defineEmits<{ turn: [step: number] }>()
const hand = useHand()
const notices = useNotices()
const refresh = useRefresh()
/** What is only passed over is not asked for. */
const looking = refDebounced(storeToRefs(hand).looking, 120)
const { data: offered } = usePocketsFor(() => props.unit, looking)
const offers = computed(() => (looking.value && hand.looking ? (offered.value ?? []) : []))
/** Blurred and grey, to see where the weight lies. */
const squinting = ref(false)
const { data: balances } = useBalance(() => props.unit)
const balance = computed(() => balances.value?.find((b) => b.spread === open.value))
const calming = ref(false)
const trueSize = ref(false)
const mat = ref<InstanceType<typeof MatSpread>>()

/** The album lies open at one spread of the unit; a unit with leaves between its pages has several. */
const spread = ref(1)
const spreads = computed(() => Math.max(1, ...props.unit.faces.map((f) => f.spread)))
const open = computed(() => Math.min(spread.value, spreads.value))
const faces = computed(() => props.unit.faces.filter((f) => f.spread === open.value))
let backwards = false
/** Which way a leaf is being turned, while it is. */
const turning = ref<'' | 'on' | 'back'>('')

watch(
  () => props.unit.id,
  () => {
    hand.clear()
    spread.value = backwards ? spreads.value : 1
    backwards = false
  },
)

/** Turns a leaf: to the next spread of this unit, then to the next unit. */
function turn(step: 1 | -1) {
  turning.value = step > 0 ? 'on' : 'back'
  const to = open.value + step
  if (to >= 1 && to <= spreads.value) {
    hand.clear()
    spread.value = to
  } else {
    backwards = step < 0
    emit('turn', step)
  }
}
onBeforeUnmount(() => hand.clear())

function put(held: InHand, place: PocketRef) {
  void props.edit(
    held.kind === 'photo'
      ? { kind: 'putPhoto', photoId: held.photoId, place }
      : { kind: 'movePiece', pieceId: held.pieceId, place },
  )
}

const weighs = (difference: number, more: string, less: string) =>
  Math.abs(difference) < 0.05
    ? 'Both pages are balanced'
    : `${difference > 0 ? more : less} ${Math.round(Math.abs(difference) * 100)} % heavier`

const firstDay = computed(() => props.album.units.find((u) => u.id === props.unit.id)?.firstDay ?? '')

/** A picture copied elsewhere goes into the open pocket, or to the tray. */
async function paste(event: ClipboardEvent) {
  const files = picturesIn(event.clipboardData)
  if (files.length === 0 || (event.target as HTMLElement).closest('input, textarea')) return
  event.preventDefault()
  let place = hand.pocket
  for (const file of files) {
    try {
      const photoId = await addPasted(props.album.id, file, props.unit.id, firstDay.value)
      await refresh(props.album.id)
      if (place) await props.edit({ kind: 'putPhoto', photoId, place })
      else notices.done('Added the pasted picture to the tray.')
    } catch (error) {
      notices.refused(error)
    }
    // One pocket takes one picture; further ones wait in the tray.
    place = null
  }
}
useEventListener(document, 'paste', paste)

const fill = () => props.edit({ kind: 'fillSpread' })
defineExpose({ fill, turn, toggleSize: () => (trueSize.value = !trueSize.value) })
</script>

<template>
  <div class="place">
    <div class="bench">
      <div class="mat-bar">
        <button
          type="button"
          class="btn btn-sm btn-outline-dark"
          :disabled="open === 1 && !unit.previousUnitId"
          @click="turn(-1)"
        >
          ‹ Turn back
        </button>
        <strong class="mat-title">{{ unit.title }} · {{ unit.label }}</strong>
        <span v-if="spreads > 1" data-testid="spread">spread {{ open }} of {{ spreads }}</span>
        <span v-if="!squinting" class="visually-quiet"
          >{{ unit.counts.pockets - unit.counts.openPockets }} of
          {{ counted(unit.counts.pockets, 'pocket') }} filled</span
        >
        <span v-if="squinting && balance" class="visually-quiet" role="status" data-testid="balance">{{
          weighs(balance.rightLessLeft, 'Right page', 'Left page')
        }}</span>
        <button
          type="button"
          class="btn btn-sm btn-outline-dark ms-auto"
          :aria-pressed="squinting"
          @click="squinting = !squinting"
        >
          Squint
        </button>
        <button type="button" class="btn btn-sm btn-outline-dark" @click="calming = true">Colours</button>
        <button
          type="button"
          class="btn btn-sm btn-outline-dark"
          :aria-pressed="trueSize"
          @click="trueSize = !trueSize"
        >
          {{ trueSize ? 'Fit the mat' : 'True size' }}
        </button>
        <button
          type="button"
          class="btn btn-sm btn-outline-dark"
          :disabled="open === spreads && !unit.nextUnitId"
          @click="turn(1)"
        >
          Turn the leaf ›
        </button>
      </div>
      <MatSpread
        ref="mat"
        :class="[turning && `turning-${turning}`, { squinting }]"
        :faces="faces"
        :true-size="trueSize"
        :offers="offers"
        @animationend="turning = ''"
        @put="put"
        @take-out="(place) => edit({ kind: 'takeOut', place })"
        @lock="(place, locked) => edit({ kind: 'lockPocket', place, locked })"
        @frame="(pieceId, framing) => edit({ kind: 'framePhoto', pieceId, framing })"
      />
      <p class="visually-hidden" role="status" data-testid="offer">
        {{ offers[0] ? `Best pocket: ${offers[0].code}, ${offers[0].words}.` : '' }}
      </p>
      <TrayStrip :unit="unit" @drop="(held, x, y) => mat?.drop(held, x, y)" />
    </div>
    <ThingDrawer :unit="unit" :album="album" :edit="edit" @fill="fill" />
    <CalmColours v-model="calming" :unit="unit" :spread="open" />
    <div
      v-if="hand.ghost"
      class="ghost"
      :style="{ left: `${hand.ghost.x}px`, top: `${hand.ghost.y}px` }"
      aria-hidden="true"
    >
      <img v-if="hand.ghost.picture" :src="hand.ghost.picture" alt="" />
      <span v-else>{{ hand.ghost.label }}</span>
    </div>
  </div>
</template>

<style scoped>
.squinting :deep(.spread) {
  filter: grayscale(1) blur(7px);
}
/* The next spread comes up as a leaf does: from the right going on, from the left going back. */
.turning-on :deep(.spread > section:last-child) {
  animation: leaf-on 320ms ease-out;
  transform-origin: left center;
}
.turning-back :deep(.spread > section:first-child) {
  animation: leaf-back 320ms ease-out;
  transform-origin: right center;
}
.place {
  display: flex;
  flex: 1;
  min-width: 0;
  min-height: 0;
}
.bench {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-width: 0;
}
.mat-title {
  font-family: 'Bricolage Grotesque Variable', sans-serif;
}
@media (max-width: 800px) {
  .place {
    flex-direction: column;
    overflow-y: auto;
  }
  .bench {
    flex: none;
  }
  .bench :deep(.mat) {
    flex: none;
    height: 300px;
  }
}
.ghost {
  position: fixed;
  z-index: 1200;
  transform: translate(-50%, -50%) rotate(-2deg);
  pointer-events: none;
  background: #fff;
  padding: 4px;
  box-shadow: 0 8px 22px rgb(0 0 0 / 0.35);
}
.ghost img {
  display: block;
  max-width: 130px;
  max-height: 110px;
}
</style>
