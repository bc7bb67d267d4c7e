<script setup lang="ts">
import { useRoute } from 'vue-router'
import HomeFrame from './HomeFrame.vue'

const route = useRoute()
</script>

<template>
    <HomeFrame>
        <div class="sheet mx-auto mt-16 max-w-xl p-10 text-center">
            <h1 class="text-xl font-semibold">There is no such page</h1>
            <p class="mt-2">
                Nothing is at <span class="font-mono break-all">{{ route.path }}</span>. Perhaps the address
                was cut when it was copied.
            </p>
            <RouterLink to="/" class="button-main mt-4">All platforms</RouterLink>
        </div>
    </HomeFrame>
</template>
