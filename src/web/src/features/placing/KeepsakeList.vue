<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { KeepsakeInfo, Money, PieceView, UnitView } from '../../api/client'
import MoneyField from '../../shared/MoneyField.vue'
import type { Edit } from './unit'

const props = defineProps<{ unit: UnitView; edit: (change: Edit) => Promise<unknown> }>()
const adding = ref(false)
const form = reactive({ name: '', size: '', thickness: '0.3 mm', note: '', photoId: '', seeThrough: false })
const price = ref<Money | null>(null)

const pieces = computed(() => [
  ...props.unit.faces
    .flatMap((f) => f.pockets)
    .filter((p) => p.piece?.kind === 'keepsake')
    .map((p) => ({ piece: p.piece!, where: p.code })),
  ...props.unit.looseCards.filter((p) => p.kind === 'keepsake').map((piece) => ({ piece, where: 'in the tray' })),
  ...props.unit.envelope.map((piece) => ({ piece, where: 'in the envelope' })),
])

async function add() {
  const answer = await props.edit({
    kind: 'addKeepsake',
    keepsake: {
      name: form.name,
      size: form.size,
      thickness: form.thickness,
      note: form.note,
      photoId: form.photoId || null,
      day: props.unit.firstDay,
      inEnvelope: false,
      seeThrough: form.seeThrough,
      price: price.value,
    },
  })
  if (!answer) return
  price.value = null
  Object.assign(form, { name: '', size: '', note: '', photoId: '', seeThrough: false })
  adding.value = false
}

const move = (piece: PieceView, inEnvelope: boolean) =>
  props.edit({
    kind: 'changeKeepsake',
    pieceId: piece.id,
    keepsake: { ...(piece.keepsake as KeepsakeInfo), inEnvelope },
  })
</script>

<template>
  <section class="mt-4" aria-label="Keepsakes">
    <div class="d-flex align-items-baseline gap-3">
      <h2 class="h5 mb-0">
        Keepsakes <small class="visually-quiet fw-normal">{{ pieces.length }}</small>
      </h2>
      <button v-if="!adding" type="button" class="btn btn-sm btn-outline-dark" @click="adding = true">
        Add a keepsake
      </button>
    </div>
    <form v-if="adding" class="keepsake-form" @submit.prevent="add">
      <div>
        <label for="keepsake-name" class="form-label">What is it?</label>
        <input id="keepsake-name" v-model="form.name" class="form-control form-control-sm" maxlength="120" required />
      </div>
      <div>
        <label for="keepsake-size" class="form-label">Size, width first</label>
        <input
          id="keepsake-size"
          v-model="form.size"
          class="form-control form-control-sm"
          placeholder="5 x 2 in"
          required
        />
      </div>
      <div>
        <label for="keepsake-thickness" class="form-label">Thickness</label>
        <input id="keepsake-thickness" v-model="form.thickness" class="form-control form-control-sm" />
      </div>
      <div>
        <label for="keepsake-note" class="form-label">Note</label>
        <input id="keepsake-note" v-model="form.note" class="form-control form-control-sm" maxlength="2000" />
      </div>
      <div>
        <label for="keepsake-photo" class="form-label">Photo of it</label>
        <BFormSelect id="keepsake-photo" v-model="form.photoId" size="sm">
          <option value="">none</option>
          <option v-for="p in unit.photos" :key="p.id" :value="p.id">{{ p.fileName }}</option>
        </BFormSelect>
      </div>
      <MoneyField id="keepsake-price" v-model="price" label="What it cost, if anything" />
      <label class="form-check my-2 align-self-end">
        <input v-model="form.seeThrough" type="checkbox" class="form-check-input" />
        <span class="form-check-label">See-through: its back shows on the other face</span>
      </label>
      <div class="d-flex gap-2 align-items-end">
        <BButton type="submit" size="sm" variant="primary">Add</BButton>
        <BButton size="sm" variant="outline-dark" @click="adding = false">Cancel</BButton>
      </div>
    </form>
    <ul v-if="pieces.length" class="keepsakes">
      <li v-for="{ piece, where } in pieces" :key="piece.id">
        <img v-if="piece.faceUrl" :src="piece.faceUrl" alt="" />
        <div>
          <strong>{{ piece.title }}</strong>
          <div class="small">
            {{ piece.keepsake?.size }} · {{ where }} ·
            <template v-if="piece.keepsake?.price"
              >{{ piece.keepsake.price.amount.toFixed(2) }} {{ piece.keepsake.price.currency }} ·</template
            >
            {{ piece.keepsake?.fitWords }}
            <span v-if="piece.keepsake?.note" class="visually-quiet">{{ piece.keepsake.note }}</span>
          </div>
          <div class="d-flex gap-1 mt-1">
            <button type="button" class="btn btn-sm btn-outline-dark" @click="move(piece, !piece.keepsake?.inEnvelope)">
              {{ piece.keepsake?.inEnvelope ? 'Take out of the envelope' : 'Put into the envelope' }}
            </button>
            <button
              type="button"
              class="btn btn-sm btn-outline-dark"
              :aria-label="`Delete ${piece.title}`"
              @click="edit({ kind: 'discardPiece', pieceId: piece.id })"
            >
              Delete
            </button>
          </div>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.keepsake-form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.6rem;
  margin-top: 0.6rem;
  padding: 0.8rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.5rem;
}
.keepsakes {
  list-style: none;
  margin: 0.6rem 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(21rem, 1fr));
  gap: 0.6rem;
}
.keepsakes li {
  display: flex;
  gap: 0.7rem;
  padding: 0.5rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.5rem;
}
.keepsakes img {
  width: 84px;
  max-height: 84px;
  object-fit: contain;
  background: #fff;
  border: 1px solid var(--line);
  align-self: center;
}
</style>
