<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { useRoute } from 'vue-router'
import type { AlbumView, UnitView } from '../../api/client'
import { tabOf } from '../../shared/places'
import { useTape } from './tape'

const props = defineProps<{ unit: UnitView; album: AlbumView }>()
const route = useRoute()
const tape = useTape(
  () => props.album,
  () => tabOf(route.params.tab as string).key,
)
const naming = ref(false)
const name = ref('')
const field = ref<HTMLInputElement>()

const next = computed(() => {
  const at = props.album.units.findIndex((u) => u.id === props.unit.id)
  return props.album.units[at + 1]
})
const thing = computed(() => ({ week: 'week', travelDay: 'day', hour: 'hour', numberedDay: 'day' })[props.unit.kind])

async function startNaming() {
  name.value = props.unit.name ?? ''
  naming.value = true
  await nextTick()
  field.value?.focus()
}

async function saveName() {
  if (await tape.rename(props.unit, name.value)) naming.value = false
}
</script>

<template>
  <BDropdown class="unit-menu" variant="link" size="sm" no-caret>
    <template #button-content
      ><span class="week-words">{{ unit.inSentence }} · {{ unit.label }} ▾</span></template
    >
    <BDropdownItemButton @click="startNaming">Rename…</BDropdownItemButton>
    <BDropdownItemButton v-if="next" @click="tape.merge(unit)">Merge with {{ next.title }}</BDropdownItemButton>
    <BDropdownItemButton v-if="unit.weight > 1" @click="tape.split(unit)">Split</BDropdownItemButton>
    <BDropdownItemButton @click="tape.leaveOut(unit, !unit.leftOut)">{{
      unit.leftOut ? 'Include it again' : 'Leave out'
    }}</BDropdownItemButton>
    <BDropdownItemButton v-if="album.canGrowAtEnd" @click="tape.grow(1, true)"
      >Add a {{ thing }} at the end</BDropdownItemButton
    >
    <BDropdownItemButton v-if="album.canGrowAtEnd && unit.kind === 'week'" @click="tape.grow(4, true)"
      >Add four weeks at the end</BDropdownItemButton
    >
    <BDropdownItemButton v-if="album.canGrowAtStart" @click="tape.grow(1, false)"
      >Add a {{ thing }} at the start</BDropdownItemButton
    >
  </BDropdown>
  <BModal
    v-model="naming"
    title-tag="h2"
    title-class="h5 mb-0"
    :title="`Rename ${unit.inSentence}`"
    no-footer
    @shown="field?.focus()"
  >
    <form @submit.prevent="saveName">
      <label for="unit-name" class="form-label">Name (leave empty to use the number)</label>
      <input id="unit-name" ref="field" v-model="name" class="form-control" maxlength="80" />
      <div class="d-flex justify-content-end gap-2 mt-3">
        <BButton variant="outline-dark" @click="naming = false">Cancel</BButton>
        <BButton type="submit" variant="primary">Save name</BButton>
      </div>
    </form>
  </BModal>
</template>

<style scoped>
.unit-menu {
  margin-left: auto;
  min-width: 0;
  flex: 0 1 auto;
}
.unit-menu :deep(.btn) {
  text-decoration: none;
  padding: 0 0 0.35rem;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
}
.unit-menu .week-words {
  padding: 0;
}
</style>
