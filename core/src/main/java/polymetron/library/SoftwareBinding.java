package polymetron.library;

import java.util.List;
import polymetron.expression.Expression;

/**
 * How software finds and drives a block.
 *
 * @param compatible the devicetree's {@code compatible} strings, most exact first
 * @param driver name of the C driver header in the block type's folder; null for none
 * @param driverFolder folder of the block type that has the driver; null for its own
 * @param standard the published programming model that the registers follow; null for our own
 * @param node generic name of its devicetree node (Devicetree Specification 0.4, 2.2.2); null for that of the block type
 * @param properties what its devicetree node has besides
 */
public record SoftwareBinding(
        List<String> compatible,
        String driver,
        String driverFolder,
        String standard,
        String node,
        List<Property> properties) {
    /**
     * A property of a devicetree node.
     *
     * @param value a number; null for a property that is just there
     * @param when whether it is there; null for always
     */
    public record Property(String name, Expression value, Expression when) {}

    public SoftwareBinding {
        compatible = Lists.orEmpty(compatible);
        properties = Lists.orEmpty(properties);
    }

    /** The same with another {@code compatible}. */
    SoftwareBinding with(String other) {
        return new SoftwareBinding(
                List.of(other), driver, driverFolder, standard, node, properties);
    }
}
