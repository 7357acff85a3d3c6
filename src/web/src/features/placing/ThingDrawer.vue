<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { AlbumView, PieceView, PocketView, UnitView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import CardEditor from '../words/CardEditor.vue'
import { useCardEdits } from '../words/cards'
import { useAlbumWords } from '../words/queries'
import PictureWords from '../words/PictureWords.vue'
import { attachmentNames, withAttached } from './attached'
import AdjustPanel from './AdjustPanel.vue'
import AttachedPanel from './AttachedPanel.vue'
import BoughtCardEditor from './BoughtCardEditor.vue'
import BestThings from './BestThings.vue'
import ChoosingPanel from './ChoosingPanel.vue'
import ChosenPanel from './ChosenPanel.vue'
import CollageEditor from './CollageEditor.vue'
import { starts } from './compose'
import CompositionEditor from './CompositionEditor.vue'
import FinishPanel from './FinishPanel.vue'
import FramedPhoto from './FramedPhoto.vue'
import { samePocket, useHand, type PocketRef } from './hand'
import LabelFields from './LabelFields.vue'
import MakingPanel from './MakingPanel.vue'
import { useReasons } from './queries'
import ScrollPanel from './ScrollPanel.vue'
import type { Edit } from './unit'

const props = defineProps<{ unit: UnitView; album: AlbumView; edit: (change: Edit) => Promise<unknown> }>()
const emit = defineEmits<{ fill: [] }>()
const hand = useHand()
const { act } = useAct(() => props.album.id)
const cardEdits = useCardEdits(
  () => props.unit,
  (change) => props.edit(change),
)
const { data: words } = useAlbumWords(() => props.album.id)
const collaging = ref(false)
const framed = ref<InstanceType<typeof FramedPhoto>>()

const found = computed(() => {
  for (const face of props.unit.faces) {
    for (const pocket of face.pockets) {
      const place: PocketRef = { leafId: face.leafId, side: face.side, pocketKey: pocket.key }
      if (samePocket(place, hand.pocket)) return { face, pocket, place }
    }
  }
  return null
})
const { data: reasons } = useReasons(() => props.unit)
const reason = computed(() => reasons.value?.find((r) => r.pieceId === found.value?.pocket.piece?.id)?.words)
const loose = computed(() => props.unit.looseCards.find((c) => c.id === hand.looseId) ?? null)
const carrier = computed<PieceView | null>(() => found.value?.pocket.piece ?? loose.value)
/** A piece that goes with the one in the pocket may be open instead of it. */
const attached = computed(() =>
  carrier.value ? (withAttached(carrier.value).find((p) => p.id === hand.attachedId && p.attachment) ?? null) : null,
)
const piece = computed<PieceView | null>(() => attached.value ?? carrier.value)

/** As wide and high as what is shown of the picture. */
const frameBox = (pocket: PocketView) => {
  const { crop, photo } = piece.value ?? {}
  const ratio = crop && photo ? (crop.width * photo.width) / (crop.height * photo.height) : pocket.width / pocket.height
  const width = Math.min(270, 220 * ratio)
  return { width: `${width}px`, height: `${width / ratio}px` }
}

async function addCard(cardKind: 'journaling' | 'weekTitle' | 'filler') {
  const place = found.value && !found.value.pocket.piece ? found.value.place : undefined
  const result = (await props.edit({ kind: 'addCard', cardKind, words: '', place })) as { pieceId?: string } | undefined
  if (!place && result?.pieceId) hand.openLoose(result.pieceId)
}

/** Leaves outside the pockets, each once. */
const outside = computed(() =>
  props.unit.faces.filter((f, i, all) => f.kind !== 'pockets' && all.findIndex((o) => o.leafId === f.leafId) === i),
)

/** The sizes of pocket the album has, for a picture that is wanted in one of them. */
const sizes = computed(() => [...new Set(props.album.protectors.flatMap((p) => p.clearSizes.map((c) => c.nominal)))])
const wish = computed(() => props.unit.wishes.find((w) => w.photoId === piece.value?.photo?.id)?.size ?? '')

/** The pockets a picture is to run over, this one first. */
const over = ref<string[]>([])
// Ticks belong to the picture and the pocket they were set for.
watch(
  () => [found.value?.place.leafId, found.value?.place.side, found.value?.place.pocketKey, piece.value?.id].join(' '),
  () => (over.value = []),
)
async function span() {
  if (!found.value || !piece.value?.photo) return
  const { face, pocket } = found.value
  const places = [pocket.key, ...over.value].map((pocketKey) => ({ leafId: face.leafId, side: face.side, pocketKey }))
  if (await props.edit({ kind: 'putSpan', photoId: piece.value.photo.id, places })) over.value = []
}

/** So much taller than its pocket that it is more than one pocket at full width. */
const isTall = (piece: PieceView, pocket: PocketView) =>
  !!piece.photo && piece.photo.height / piece.photo.width > (1.4 * pocket.height) / pocket.width

/** The photo whose card is being squared up: it is looked at only when asked for. */
const buying = ref<string | null>(null)
function openBuying(event: Event, pieceId: string) {
  if ((event.target as HTMLDetailsElement).open) buying.value = pieceId
  else if (buying.value === pieceId) buying.value = null
}

const percent = (value: number) => `${value < 0.05 ? 0 : value.toFixed(1)} %`
</script>

<template>
  <aside v-if="hand.chosen.length > 1" class="drawer" aria-label="The thing in hand">
    <ChosenPanel :unit="unit" :edit="edit" />
  </aside>
  <aside v-else class="drawer" aria-label="The thing in hand">
    <template v-if="found">
      <h2 class="h5 mb-1">
        {{ found.pocket.code }} <small class="visually-quiet fw-normal">{{ found.pocket.size }} pocket</small>
      </h2>
      <p class="form-text mt-0">
        {{ found.face.side === 'back' ? 'Left' : 'Right' }} page, cut to {{ found.pocket.cutLabel
        }}<template v-if="found.pocket.thickness"
          >; {{ found.pocket.thickness }} thick with all that lies in it</template
        >
      </p>
    </template>
    <p v-if="reason && !attached" class="reason" data-testid="reason">{{ reason }}</p>
    <h2 v-if="!found && loose" class="h5">Loose {{ loose.kind }}</h2>
    <p v-if="attached" class="mb-2">
      <strong>{{ attachmentNames[attached.attachment!.kind] }}</strong>, {{ attached.attachment!.size }}
      <button type="button" class="btn btn-sm btn-link py-0" @click="hand.attachedId = null">
        Back to the piece in the pocket
      </button>
    </p>

    <template v-if="piece && piece.kind === 'photo' && found && piece.crop && piece.framing">
      <div class="frame-box" :style="frameBox(found.pocket)">
        <FramedPhoto
          ref="framed"
          :piece="piece"
          :side="1600"
          interactive
          @frame="edit({ kind: 'framePhoto', pieceId: piece.id, framing: $event })"
        />
      </div>
      <p class="form-text mb-1">Drag the picture to move it in its pocket.</p>
      <label for="zoom" class="form-label mb-0">Zoom {{ piece.framing.zoom.toFixed(2) }}×</label>
      <input
        id="zoom"
        type="range"
        class="form-range"
        min="1"
        max="4"
        step="0.05"
        :value="piece.framing.zoom"
        @input="framed?.setZoom(Number(($event.target as HTMLInputElement).value))"
        @change="framed?.commit()"
      />
      <p v-if="piece.warning" class="warning-chip" data-testid="resolution-warning">! {{ piece.warning }}</p>
      <dl class="facts">
        <dt>Resolution</dt>
        <dd data-testid="ppi">
          {{ Math.round(piece.crop.pixelsPerInch) }} ppi ({{
            piece.crop.grade === 'askFirst' ? 'ask first' : piece.crop.grade
          }})
        </dd>
        <dt>Crop loss</dt>
        <dd data-testid="loss">{{ percent(piece.crop.lossPercent) }}</dd>
        <dt>Taken</dt>
        <dd>{{ piece.photo?.dayLabel ?? 'no date' }} {{ piece.photo?.time }}</dd>
        <dt>File</dt>
        <dd class="text-break">{{ piece.photo?.fileName }}</dd>
      </dl>
      <p v-if="piece.span" data-testid="span">
        Part {{ piece.span.number }} of {{ piece.span.of }} of one picture. Framing moves the whole of it; what lies
        under the seams is skipped.
      </p>
      <template v-else>
        <AdjustPanel :key="`adjust ${piece.id}`" :piece="piece" :edit="edit" @level="framed?.level($event)" />
        <PictureWords :key="piece.id" :unit-id="unit.id" :piece="piece" :edit="edit" />
        <AttachedPanel :key="`with ${piece.id}`" :unit="unit" :piece="piece" :edit="edit" />
        <FinishPanel :unit="unit" :piece="piece" :edit="edit" />
        <MakingPanel :unit="unit" :piece="piece" :edit="edit" />
      </template>
      <ScrollPanel
        v-if="!piece.span && !piece.attachment && isTall(piece, found.pocket)"
        :key="`scroll ${piece.id}`"
        :unit="unit"
        :piece="piece"
        :pocket="found.pocket"
        :edit="edit"
      />
      <details
        v-if="!piece.span && !piece.attachment"
        class="mt-2"
        :open="buying === piece.id"
        @toggle="openBuying($event, piece.id)"
      >
        <summary>This is a photo of a bought card</summary>
        <BoughtCardEditor
          v-if="buying === piece.id"
          :key="`buy ${piece.id}`"
          :unit="unit"
          :photo="piece.photo!"
          :place="found.place"
          :edit="edit"
        />
      </details>
      <details v-if="!piece.attachment" class="mt-2">
        <summary>Larger, or always this large</summary>
        <label for="wish" class="form-label mb-0 mt-1">This picture is wanted</label>
        <BFormSelect
          id="wish"
          size="sm"
          :model-value="wish"
          @update:model-value="
            edit({
              kind: 'wishSize',
              photoId: piece.photo!.id,
              size: ($event as string) || null,
            })
          "
        >
          <option value="">in any pocket</option>
          <option v-for="s in sizes" :key="s" :value="s">at {{ s }}</option>
        </BFormSelect>
        <fieldset v-if="!piece.span && found.face.pockets.length > 1" class="mt-2">
          <legend class="form-label fs-6 mb-0">Let it run over neighbours too</legend>
          <div class="d-flex flex-wrap gap-2">
            <label
              v-for="p in found.face.pockets.filter((o) => o.key !== found!.pocket.key)"
              :key="p.key"
              class="form-check my-2"
            >
              <input v-model="over" type="checkbox" class="form-check-input" :value="p.key" />
              <span class="form-check-label">{{ p.code }}</span>
            </label>
          </div>
          <BButton size="sm" variant="outline-dark" :disabled="over.length === 0" @click="span"
            >Run over {{ over.length + 1 }} pockets</BButton
          >
        </fieldset>
      </details>
    </template>

    <template v-else-if="piece && piece.kind === 'card'">
      <CardEditor :key="piece.id" :unit="unit" :piece="piece" v-on="cardEdits(piece)" />
      <AttachedPanel
        v-if="!['back', 'sleeve'].includes(piece.attachment?.kind ?? '')"
        :key="`with ${piece.id}`"
        :unit="unit"
        :piece="piece"
        :edit="edit"
      />
      <FinishPanel :unit="unit" :piece="piece" :edit="edit" />
      <MakingPanel :unit="unit" :piece="piece" :edit="edit" />
    </template>

    <template v-else-if="piece?.composition">
      <CompositionEditor
        :key="piece.id"
        :unit="unit"
        :piece="piece"
        :size="found?.pocket.cutLabel ?? null"
        :edit="edit"
      />
      <AttachedPanel :key="`with ${piece.id}`" :unit="unit" :piece="piece" :edit="edit" />
    </template>

    <template v-else-if="piece?.boughtCard">
      <BoughtCardEditor :key="piece.id" :unit="unit" :piece="piece" :edit="edit" />
      <AttachedPanel :key="`with ${piece.id}`" :unit="unit" :piece="piece" :edit="edit" />
      <MakingPanel :unit="unit" :piece="piece" :edit="edit" />
    </template>

    <template v-else-if="piece?.label">
      <LabelFields :key="piece.id" :piece="piece" :edit="edit" />
      <MakingPanel :unit="unit" :piece="piece" :edit="edit" />
    </template>

    <CollageEditor
      v-else-if="piece?.collage"
      :key="piece.id"
      :unit="unit"
      :piece-id="piece.id"
      :face-url="piece.faceUrl"
      :collage="piece.collage"
      :warning="piece.warning"
      :edit="edit"
    />

    <p v-if="piece && piece.kind !== 'photo' && piece.kind !== 'collage' && piece.warning" class="warning-chip mt-2">
      ! {{ piece.warning }}
    </p>
    <p v-if="found?.pocket.behind" class="form-text mb-0" data-testid="behind">
      Behind it lies {{ found.pocket.behind }}{{ found.pocket.stuck ? ', stuck to it: both move as one' : '' }}.
    </p>
    <div v-if="attached" class="mt-2">
      <BButton size="sm" variant="outline-dark" @click="edit({ kind: 'detachPiece', pieceId: attached.id })"
        >Take it off</BButton
      >
    </div>
    <div v-else-if="piece && found" class="d-flex flex-wrap gap-2 mt-2">
      <BButton size="sm" variant="outline-dark" @click="edit({ kind: 'takeOut', place: found.place })"
        >Move to tray</BButton
      >
      <BButton
        size="sm"
        variant="outline-dark"
        @click="edit({ kind: 'lockPocket', place: found.place, locked: !found.pocket.locked })"
      >
        {{ found.pocket.locked ? 'Unlock' : 'Lock' }}
      </BButton>
      <BButton
        v-if="piece.kind === 'photo' && !piece.span"
        size="sm"
        variant="outline-dark"
        :aria-pressed="hand.framing"
        @click="hand.framing = !hand.framing"
      >
        {{ hand.framing ? 'Done moving' : 'Move the photo' }}
      </BButton>
    </div>

    <template v-if="!piece">
      <BestThings
        v-if="found"
        :key="found.pocket.code"
        :unit="unit"
        :code="found.pocket.code"
        :place="found.place"
        :edit="edit"
      />
      <p v-if="found">This pocket is empty. Pick a loose piece in the tray and press Enter here, or drag it in.</p>
      <p v-else>Choose a pocket, or drag a piece from the tray onto the spread.</p>
      <div class="d-grid gap-2">
        <ChoosingPanel :unit="unit" :edit="edit" @fill="emit('fill')" />
        <BButton variant="outline-dark" @click="addCard('journaling')">Add a journaling card</BButton>
        <BButton variant="outline-dark" @click="addCard('weekTitle')">Add a title card</BButton>
        <BButton variant="outline-dark" @click="addCard('filler')">Add a filler card</BButton>
        <BButton
          v-if="found"
          variant="outline-dark"
          @click="edit({ kind: 'leaveEmpty', place: found.place, empty: !found.pocket.leftEmpty })"
          >{{ found.pocket.leftEmpty ? 'Use this pocket again' : 'Leave it empty' }}</BButton
        >
        <BButton variant="outline-dark" :aria-expanded="collaging" @click="collaging = !collaging"
          >Make a collage</BButton
        >
        <BDropdown v-if="found && !found.pocket.piece" text="Make a composition" variant="outline-dark">
          <BDropdownItemButton
            v-for="s in starts"
            :key="s.key"
            @click="edit({ kind: 'addComposition', startKey: s.key, place: found.place })"
            >{{ s.name }}</BDropdownItemButton
          >
          <BDropdownItemButton
            v-for="s in words?.ownCompositions ?? []"
            :key="s.key"
            @click="edit({ kind: 'addComposition', startKey: s.key, place: found.place })"
            >{{ s.name }} (yours)</BDropdownItemButton
          >
        </BDropdown>
      </div>
      <CollageEditor
        v-if="collaging"
        class="mt-2"
        :unit="unit"
        :place="found?.place"
        :sizes="sizes"
        :edit="edit"
        @made="collaging = false"
      />
      <h2 class="h6 mt-3">Page designs</h2>
      <div v-for="face in unit.faces.filter((f) => f.kind === 'pockets')" :key="face.leafId + face.side" class="mb-2">
        <label :for="`design-${face.side}-${face.spread}`" class="form-label mb-0">
          {{ face.side === 'back' ? 'Left page' : 'Right page'
          }}{{ unit.faces.length > 2 ? `, spread ${face.spread}` : '' }}
        </label>
        <BFormSelect
          :id="`design-${face.side}-${face.spread}`"
          size="sm"
          :model-value="face.protectorId"
          @update:model-value="
            act(() =>
              editAlbum(album.id, {
                kind: 'giveDesign',
                unitId: unit.id,
                revision: unit.revision,
                leafId: face.leafId,
                protectorId: $event as string,
              }),
            )
          "
        >
          <option v-for="p in album.protectors.filter((o) => o.kind === 'pockets')" :key="p.id" :value="p.id">
            {{ p.id === face.protectorId ? face.designName : p.designName }}
          </option>
        </BFormSelect>
        <p class="form-text mt-0 mb-0">
          Its other side is {{ face.otherSide }} and changes with it.{{ face.note ? ` ${face.note}` : '' }}
        </p>
        <button
          v-if="face.pockets.some((p) => p.piece)"
          type="button"
          class="btn btn-sm btn-link px-0"
          @click="edit({ kind: 'mirrorPage', leafId: face.leafId, side: face.side })"
        >
          Mirror this page
        </button>
      </div>
      <div v-for="face in outside" :key="face.leafId + face.side" class="mb-2">
        <strong>{{ face.designName }}</strong>
        <p class="form-text mt-0 mb-0">Spread {{ face.spread }}. {{ face.note }}</p>
      </div>
    </template>
  </aside>
</template>

<style scoped>
.drawer {
  flex: 0 0 316px;
  padding: 0.9rem 1.1rem;
  overflow-y: auto;
  background: var(--card);
  border-left: 1px solid var(--line);
}
@media (max-width: 800px) {
  .drawer {
    flex: none;
    overflow: visible;
    border-left: 0;
  }
}
.frame-box {
  position: relative;
  border: 1px solid #8b8072;
  background: #fff;
}
.reason {
  margin-bottom: 0.5rem;
  padding-left: 0.6rem;
  border-left: 3px solid var(--zest-bright);
  font-size: 0.9rem;
}
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.1rem 0.8rem;
  margin: 0.5rem 0 0.8rem;
}
.facts dt {
  font-weight: 600;
}
.facts dd {
  margin: 0;
}
</style>
