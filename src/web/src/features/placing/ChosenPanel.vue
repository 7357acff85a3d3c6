<script setup lang="ts">
import { computed } from 'vue'
import type { UnitView } from '../../api/client'
import { counted } from '../../shared/words'
import { samePocket, useHand, type PocketRef } from './hand'
import type { Edit } from './unit'

/** Several pockets are chosen: what can be done with all of them at once. */
const props = defineProps<{ unit: UnitView; edit: (change: Edit) => Promise<unknown> }>()
const hand = useHand()

const all = computed(() =>
  props.unit.faces.flatMap((face) =>
    face.pockets.map((pocket) => ({
      face,
      pocket,
      place: { leafId: face.leafId, side: face.side, pocketKey: pocket.key } satisfies PocketRef,
    })),
  ),
)
/** In the order they were chosen: the first gives its look to the others. */
const chosen = computed(() => hand.chosen.flatMap((place) => all.value.find((p) => samePocket(p.place, place)) ?? []))
const places = computed(() => chosen.value.map((c) => c.place))
const full = computed(() => chosen.value.filter((c) => c.pocket.piece))
const prints = computed(() => full.value.filter((c) => c.pocket.piece!.kind === 'photo'))
const whole = computed(() => prints.value.filter((c) => !c.pocket.piece!.span))
const locked = computed(() => full.value.length > 0 && full.value.every((c) => c.pocket.locked))
const grey = computed(
  () => prints.value.length > 0 && prints.value.every((c) => c.pocket.piece!.adjustment?.blackAndWhite),
)
const two = computed(() => (chosen.value.length === 2 ? [chosen.value[0]!, chosen.value[1]!] : null))
/** A card with words and a picture that are to stay together. */
const pair = computed(() => {
  const card = full.value.find((c) => c.pocket.piece!.kind === 'card')?.pocket.piece
  const photo = whole.value[0]?.pocket.piece?.photo
  return two.value && card && photo ? { card, photo, paired: card.pairedWith === photo.id } : null
})
const onePage = computed(() => new Set(chosen.value.map((c) => c.face.leafId + c.face.side)).size === 1)

const colour = (blackAndWhite: boolean) =>
  props.edit({
    kind: 'adjustPhotos',
    prints: prints.value.map((c) => ({
      pieceId: c.pocket.piece!.id,
      adjustment: { straighten: 0, lighter: 0, ...(c.pocket.piece!.adjustment ?? {}), blackAndWhite },
    })),
  })

function swap() {
  const [one, other] = two.value![0]!.pocket.piece ? two.value! : [...two.value!].reverse()
  return props.edit({ kind: 'movePiece', pieceId: one!.pocket.piece!.id, place: other!.place })
}
const span = () =>
  props.edit({ kind: 'putSpan', photoId: whole.value[0]!.pocket.piece!.photo!.id, places: places.value })

/** The chosen pictures in one print, in the pocket chosen first. */
async function collage() {
  const { place, pocket } = chosen.value[0]!
  const photoIds = whole.value.map((c) => c.pocket.piece!.photo!.id)
  if (await props.edit({ kind: 'addCollage', collage: { size: pocket.size, photoIds }, place })) hand.chosen = []
}
</script>

<template>
  <section class="chosen" aria-label="The chosen pockets">
    <h2 class="h5 mb-1">
      <span role="status">{{ counted(chosen.length, 'pocket') }} chosen</span>
    </h2>
    <p class="form-text mt-0">
      {{ chosen.map((c) => c.pocket.code).join(', ') }}.
      <button type="button" class="btn btn-sm btn-link p-0 align-baseline" @click="hand.chosen = []">
        Let them go
      </button>
    </p>
    <div class="d-grid gap-2">
      <template v-if="two">
        <BButton v-if="full.length" size="sm" variant="outline-dark" @click="swap">Swap these two</BButton>
        <BButton
          size="sm"
          variant="outline-dark"
          @click="edit({ kind: 'swapRows', one: two[0]!.place, other: two[1]!.place })"
          >Swap their rows</BButton
        >
        <BButton
          v-if="pair"
          size="sm"
          variant="outline-dark"
          :aria-pressed="pair.paired"
          @click="edit({ kind: 'pairCard', pieceId: pair.card.id, photoId: pair.paired ? null : pair.photo.id })"
          >Keep the card beside the picture</BButton
        >
      </template>
      <template v-if="prints.length">
        <BButton size="sm" variant="outline-dark" @click="colour(!grey)">{{
          grey ? 'In colour' : 'Black and white'
        }}</BButton>
        <BButton
          v-if="whole.length > 1"
          size="sm"
          variant="outline-dark"
          @click="edit({ kind: 'matchLight', pieceIds: whole.map((c) => c.pocket.piece!.id) })"
          >Match their light</BButton
        >
        <BButton
          v-if="whole.length > 1"
          size="sm"
          variant="outline-dark"
          @click="
            edit({
              kind: 'copyLook',
              fromPieceId: whole[0]!.pocket.piece!.id,
              toPieceIds: whole.slice(1).map((c) => c.pocket.piece!.id),
            })
          "
          >Same look as {{ whole[0]!.pocket.code }}</BButton
        >
        <BButton v-if="whole.length > 1 && whole.length <= 9" size="sm" variant="outline-dark" @click="collage"
          >Make a collage in {{ chosen[0]!.pocket.code }}</BButton
        >
        <BButton v-if="whole.length === 1 && onePage" size="sm" variant="outline-dark" @click="span"
          >Let the picture run over all of them</BButton
        >
      </template>
      <template v-if="full.length">
        <BButton size="sm" variant="outline-dark" @click="edit({ kind: 'lockPockets', locked: !locked, places })">{{
          locked ? 'Unlock' : 'Lock'
        }}</BButton>
        <BButton size="sm" variant="outline-dark" @click="edit({ kind: 'takeOutAll', places })">Move to tray</BButton>
      </template>
    </div>
  </section>
</template>
