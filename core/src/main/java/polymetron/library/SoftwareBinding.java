package polymetron.library;

import java.util.List;

/**
 * How software finds and drives a block.
 *
 * @param compatible the devicetree's {@code compatible} strings, most exact first
 * @param driver name of the C driver header in the block type's folder; null for none
 * @param standard the published programming model that the registers follow; null for our own
 */
public record SoftwareBinding(List<String> compatible, String driver, String standard) {
    public SoftwareBinding {
        compatible = Lists.orEmpty(compatible);
    }
}
