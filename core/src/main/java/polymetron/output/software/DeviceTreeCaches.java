package polymetron.output.software;

import polymetron.library.Capability;
import polymetron.software.Hart;

/** First-level caches of a hart in its devicetree node (Devicetree Specification 0.4, 3.8.3). */
final class DeviceTreeCaches {
    private DeviceTreeCaches() {}

    static void write(DeviceTreeWriter out, Hart hart) {
        for (Capability.Cache cache : hart.role().caches()) {
            long bytes = hart.block().shape().number(cache.bytes(), 0);
            if (bytes > 0) {
                String letter = cache.holds().equals("instructions") ? "i" : "d";
                long line = hart.block().shape().number(cache.line(), 1);
                long ways = hart.block().shape().number(cache.ways(), 1);
                out.line("%s-cache-size = <%s>;", letter, bytes);
                out.line("%s-cache-block-size = <%s>;", letter, line);
                out.line("%s-cache-sets = <%s>;", letter, bytes / line / ways);
            }
        }
    }

    static boolean cachesData(Hart hart) {
        return hart.role().caches().stream()
                .filter(cache -> cache.holds().equals("data"))
                .anyMatch(cache -> hart.block().shape().number(cache.bytes(), 0) > 0);
    }
}
