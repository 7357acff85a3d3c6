<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AlbumView, UnitView } from '../../api/client'
import type { Room, Scope, Tab } from '../../shared/places'
import DesignsRoom from '../binder/DesignsRoom.vue'
import LeavesRoom from '../binder/LeavesRoom.vue'
import ProtectorsRoom from '../binder/ProtectorsRoom.vue'
import CountTab from '../counting/CountTab.vue'
import BookRoom from '../keeping/BookRoom.vue'
import SharingRoom from '../household/SharingRoom.vue'
import BackupRoom from '../keeping/BackupRoom.vue'
import PaceRoom from '../keeping/PaceRoom.vue'
import CostRoom from '../keeping/CostRoom.vue'
import StashRoom from '../keeping/stash/StashRoom.vue'
import YearRoom from '../keeping/YearRoom.vue'
import ThicknessRoom from '../keeping/ThicknessRoom.vue'
import LookOverRoom from '../lookingOver/LookOverRoom.vue'
import ReadingRoom from '../lookingOver/ReadingRoom.vue'
import FormulasRoom from '../counting/FormulasRoom.vue'
import CamerasRoom from '../dates/CamerasRoom.vue'
import GatherTab from '../photos/GatherTab.vue'
import PhotosRoom from '../photos/PhotosRoom.vue'
import SeriesRoom from '../photos/SeriesRoom.vue'
import VideosRoom from '../photos/VideosRoom.vue'
import TripRoom from '../travel/TripRoom.vue'
import KeepsakesRoom from '../placing/KeepsakesRoom.vue'
import PlaceTab from '../placing/PlaceTab.vue'
import StretchRoom from '../placing/StretchRoom.vue'
import type { Edit } from '../placing/unit'
import LabRoom from '../printing/LabRoom.vue'
import PapersRoom from '../printing/PapersRoom.vue'
import PrintersRoom from '../printing/PrintersRoom.vue'
import PrintTab from '../printing/PrintTab.vue'
import TuckRoom from '../tuckingIn/TuckRoom.vue'
import ContributionsRoom from '../words/ContributionsRoom.vue'
import LettersRoom from '../words/LettersRoom.vue'
import PeopleRoom from '../words/PeopleRoom.vue'
import StylesRoom from '../words/StylesRoom.vue'
import TellTab from '../words/TellTab.vue'
import WordsRoom from '../words/WordsRoom.vue'
import OverviewRoom from './OverviewRoom.vue'

/** The room that an address names. */
const props = defineProps<{
  album: AlbumView
  unit?: UnitView
  scope: Scope
  tab: Tab
  room: Room
  edit: (change: Edit) => Promise<unknown>
}>()
defineEmits<{ turn: [step: number] }>()
const mat = ref<InstanceType<typeof PlaceTab>>()

/** The weeks or days in the scope, in their order. */
const unitIds = computed(() => {
  const { scope } = props
  const all = props.album.units.map((u) => u.id)
  if (scope.kind === 'album') return all
  if (scope.kind === 'unit') return [scope.from]
  const ends = [all.indexOf(scope.from), all.indexOf(scope.until)]
  return all.slice(Math.min(...ends), Math.max(...ends) + 1)
})
const at = computed(() => `${props.tab.key}/${props.room.key}`)

const ofAlbum = {
  'overview/album': OverviewRoom,
  'gather/cameras': CamerasRoom,
  'gather/keepsakes': KeepsakesRoom,
  'gather/series': SeriesRoom,
  'gather/trip': TripRoom,
  'gather/videos': VideosRoom,
  'tell/styles': StylesRoom,
  'tell/lettering': LettersRoom,
  'tell/people': PeopleRoom,
  'count/leaves': LeavesRoom,
  'count/designs': DesignsRoom,
  'count/protectors': ProtectorsRoom,
  'count/formulas': FormulasRoom,
  'print/papers': PapersRoom,
  'print/printers': PrintersRoom,
  'keep/thickness': ThicknessRoom,
  'keep/pace': PaceRoom,
  'keep/costs': CostRoom,
  'keep/year': YearRoom,
  'keep/backup': BackupRoom,
  'keep/sharing': SharingRoom,
} as const

defineExpose({
  fill: () => void mat.value?.fill(),
  turn: (step: 1 | -1) => mat.value?.turn(step),
  toggleSize: () => mat.value?.toggleSize(),
})
</script>

<template>
  <component :is="ofAlbum[at as keyof typeof ofAlbum]" v-if="at in ofAlbum" :album="album" />
  <PhotosRoom v-else-if="at === 'gather/photos' && scope.kind === 'album'" :album="album" />
  <ContributionsRoom
    v-else-if="at === 'tell/contributions'"
    :key="`contributions ${unitIds.join()}`"
    :album="album"
    :unit-id="scope.kind === 'unit' ? scope.from : undefined"
  />
  <WordsRoom v-else-if="at === 'tell/cards' && scope.kind === 'stretch'" :album="album" :unit-ids="unitIds" />
  <CountTab
    v-else-if="at === 'count/tally' && (unit || scope.kind !== 'unit')"
    :key="unitIds.join()"
    :unit="unit"
    :unit-ids="unitIds"
    :album="album"
    :edit="edit"
  />
  <LookOverRoom
    v-else-if="at === 'look/findings'"
    :key="unitIds.join()"
    :album="album"
    :unit-ids="unitIds"
    :whole="scope.kind === 'album'"
  />
  <ReadingRoom
    v-else-if="at === 'look/reading'"
    :key="`reading ${unitIds.join()}`"
    :album="album"
    :unit-ids="unitIds"
    :whole="scope.kind === 'album'"
  />
  <BookRoom
    v-else-if="at === 'keep/book'"
    :key="`book ${unitIds.join()}`"
    :album="album"
    :unit-ids="unitIds"
    :whole="scope.kind === 'album'"
  />
  <StashRoom
    v-else-if="at === 'keep/stash'"
    :key="`stash ${unitIds.join()}`"
    :album="album"
    :unit-id="scope.kind === 'unit' ? scope.from : undefined"
  />
  <TuckRoom v-else-if="at === 'tuck/table'" :key="`tuck ${unitIds.join()}`" :album="album" :unit-ids="unitIds" />
  <LabRoom v-else-if="at === 'print/lab'" :key="`lab ${unitIds.join()}`" :album="album" :unit-ids="unitIds" />
  <StretchRoom
    v-else-if="at === 'place/spread' && scope.kind === 'stretch'"
    :key="unitIds.join()"
    :album="album"
    :unit-ids="unitIds"
  />
  <template v-else-if="unit">
    <GatherTab v-if="at === 'gather/photos'" :unit="unit" :album="album" :edit="edit" />
    <TellTab v-else-if="at === 'tell/cards'" :unit="unit" :edit="edit" />
    <PrintTab v-else-if="at === 'print/sheets'" :key="unit.id" :unit="unit" :unit-ids="unitIds" :album="album" />
    <PlaceTab v-else ref="mat" :unit="unit" :album="album" :edit="edit" @turn="$emit('turn', $event)" />
  </template>
</template>
