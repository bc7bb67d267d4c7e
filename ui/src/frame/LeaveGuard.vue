<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'
import { onBeforeRouteLeave, useRouter } from 'vue-router'
import DialogFrame from './DialogFrame.vue'

/** Asks before changes that are not saved are left behind: within the application with a dialog, else with the browser's own. */
const props = defineProps<{ changed: boolean; what: string }>()
const router = useRouter()

/** Where the way leads that was asked about; undefined when nothing is asked. */
const asked = ref<string>()
let leave = false
onBeforeRouteLeave((to) => {
    if (props.changed && !leave) {
        asked.value = to.fullPath
        return false
    }
    return true
})

function leaveAllTheSame(): void {
    leave = true
    void router.push(asked.value ?? '/')
}

function onUnload(event: BeforeUnloadEvent): void {
    if (props.changed) {
        event.preventDefault()
    }
}
window.addEventListener('beforeunload', onUnload)
onBeforeUnmount(() => window.removeEventListener('beforeunload', onUnload))
</script>

<template>
    <DialogFrame
        :open="asked !== undefined"
        title="Leave without saving?"
        :width="460"
        @close="asked = undefined"
    >
        <p class="mt-1">The {{ what }} has changes that are not saved.</p>
        <template #buttons>
            <button class="button" @click="leaveAllTheSame">Leave</button>
            <button class="button-main" @click="asked = undefined">Stay</button>
        </template>
    </DialogFrame>
</template>
