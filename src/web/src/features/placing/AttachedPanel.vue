<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PieceView, UnitView } from '../../api/client'
import { attachmentNames, attachments, hinges, loosePhotos, type AttachmentKind } from './attached'
import type { Edge } from './finish'
import { useHand } from './hand'
import LabelFields from './LabelFields.vue'
import type { Edit } from './unit'

/** What goes with a piece: flips over it, pieces behind it, its back, labels. */
const props = defineProps<{ unit: UnitView; piece: PieceView; edit: (change: Edit) => Promise<unknown> }>()
const hand = useHand()

const attached = computed(() => props.piece.attached ?? [])
/** What goes with another piece itself can only have a back. */
const offered = computed(() => (props.piece.attachment ? attachments.filter((a) => a.kind === 'back') : attachments))
const kind = ref<AttachmentKind>(offered.value[0]!.kind)
const edge = ref<Edge>('top')
const what = ref('')
const labelling = ref(false)
const wantsEdge = computed(() => attachments.find((a) => a.kind === kind.value)?.edge ?? false)
const photos = computed(() => loosePhotos(props.unit))
const cards = computed(() => props.unit.looseCards.filter((p) => p.kind !== 'label'))

async function add() {
  const [source, id] = what.value.split(':')
  const done = (await props.edit({
    kind: 'attachPiece',
    toId: props.piece.id,
    as: kind.value,
    edge: edge.value,
    pieceId: source === 'piece' ? (id ?? null) : null,
    photoId: source === 'photo' ? (id ?? null) : null,
    across: 'centre',
    down: 'bottom',
  })) as { pieceId?: string } | undefined
  what.value = ''
  if (done?.pieceId) hand.attachedId = done.pieceId
}

const hang = (piece: PieceView, changes: { edge?: Edge; depth?: string | null }) => {
  const a = piece.attachment!
  return props.edit({
    kind: 'attachPiece',
    toId: a.toId,
    as: a.kind,
    pieceId: piece.id,
    edge: a.edge,
    depth: a.depth,
    across: a.across,
    down: a.down,
    ...changes,
  })
}
</script>

<template>
  <details class="mt-2" :open="attached.length > 0 || !!piece.attachment">
    <summary>{{ piece.attachment ? 'Its back' : 'Flips, tags, backs, labels' }}</summary>
    <ul class="list-unstyled mb-2 mt-2">
      <li v-for="with_ in attached" :key="with_.id" class="attached">
        <strong>{{ attachmentNames[with_.attachment!.kind] }}</strong>
        <span class="text-truncate">{{ with_.title }}</span>
        <span class="form-text my-0">{{ with_.attachment!.size }}</span>
        <span class="buttons">
          <button type="button" class="btn btn-sm btn-outline-dark" @click="hand.attachedId = with_.id">Open</button>
          <button
            v-if="with_.attachment!.kind === 'flip'"
            type="button"
            class="btn btn-sm btn-outline-dark"
            :aria-pressed="hand.lifted.includes(with_.id)"
            @click="hand.lift(with_.id)"
          >
            {{ hand.lifted.includes(with_.id) ? 'Close' : 'Lift' }}
          </button>
          <button type="button" class="btn btn-sm btn-link" @click="edit({ kind: 'detachPiece', pieceId: with_.id })">
            Take off
          </button>
        </span>
        <span v-if="with_.attachment!.kind === 'flip' || with_.attachment!.kind === 'tag'" class="buttons">
          <BFormSelect
            size="sm"
            :aria-label="with_.attachment!.kind === 'flip' ? 'Hinged at' : 'Pulled at'"
            :model-value="with_.attachment!.edge"
            @update:model-value="hang(with_, { edge: $event as Edge })"
          >
            <option v-for="h in hinges" :key="h.edge" :value="h.edge">{{ h.name }}</option>
          </BFormSelect>
          <input
            class="form-control form-control-sm"
            :aria-label="with_.attachment!.kind === 'flip' ? 'How far it reaches' : 'How far it stands out'"
            :value="with_.attachment!.depth ?? ''"
            :placeholder="with_.attachment!.kind === 'flip' ? 'all of it' : '1/2 in'"
            @change="hang(with_, { depth: ($event.target as HTMLInputElement).value.trim() || null })"
          />
        </span>
      </li>
    </ul>
    <form class="add" @submit.prevent="add">
      <BFormSelect v-if="offered.length > 1" v-model="kind" size="sm" aria-label="How it goes with this piece">
        <option v-for="a in offered" :key="a.kind" :value="a.kind">{{ a.name }}</option>
      </BFormSelect>
      <BFormSelect v-if="wantsEdge" v-model="edge" size="sm" :aria-label="kind === 'flip' ? 'Hinge at' : 'Pull at'">
        <option v-for="h in hinges" :key="h.edge" :value="h.edge">
          {{ kind === 'flip' ? 'hinged at' : 'pulled at' }} the {{ h.name }}
        </option>
      </BFormSelect>
      <BFormSelect v-model="what" size="sm" aria-label="What is added">
        <option value="">a new card</option>
        <option v-for="c in cards" :key="c.id" :value="`piece:${c.id}`">{{ c.title }}</option>
        <option v-for="p in photos" :key="p.id" :value="`photo:${p.id}`">{{ p.fileName }}</option>
      </BFormSelect>
      <BButton type="submit" size="sm" variant="outline-dark">{{ piece.attachment ? 'Add back' : 'Add' }}</BButton>
      <BButton
        v-if="!piece.attachment"
        size="sm"
        variant="outline-dark"
        :aria-expanded="labelling"
        @click="labelling = !labelling"
        >Write a label</BButton
      >
    </form>
    <LabelFields v-if="labelling" :to-id="piece.id" :edit="edit" @done="labelling = false" />
  </details>
</template>

<style scoped>
.attached {
  display: grid;
  gap: 0.15rem;
  padding-bottom: 0.5rem;
  margin-bottom: 0.5rem;
  border-bottom: 1px solid var(--line);
}
.buttons {
  display: flex;
  gap: 0.3rem;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
}
</style>
