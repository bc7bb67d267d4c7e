package polymetron.server.api;

import io.swagger.v3.oas.annotations.OpenAPIDefinition;
import io.swagger.v3.oas.annotations.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.PropertyCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import polymetron.address.Address;
import polymetron.library.Vlnv;

/** The OpenAPI description of the whole API; the front end's types are generated from it. */
@Configuration
@OpenAPIDefinition(
        info =
                @Info(
                        title = "Polymetron",
                        version = "1",
                        description = "Hardware platforms for FPGAs"))
public class ApiDescription {
    private static final String MAY_BE_MISSING = "x-may-be-missing";

    static {
        // Both are written as text.
        SpringDocUtils.getConfig().replaceWithClass(Address.class, String.class);
        SpringDocUtils.getConfig().replaceWithClass(Vlnv.class, String.class);
    }

    @Bean
    PropertyCustomizer noteMissing() {
        return (property, type) -> {
            boolean missing =
                    type.getCtxAnnotations() != null
                            && List.of(type.getCtxAnnotations()).stream()
                                    .anyMatch(
                                            each ->
                                                    each.annotationType()
                                                            .getSimpleName()
                                                            .equals("Nullable"));
            if (missing) {
                property.addExtension(MAY_BE_MISSING, true);
            }
            return property;
        };
    }

    /** Every property is always there, unless it is marked as one that may be missing. */
    @Bean
    OpenApiCustomizer requireTheRest() {
        return description -> {
            description.setServers(null);
            for (Schema<?> schema : description.getComponents().getSchemas().values()) {
                require(schema);
            }
        };
    }

    @SuppressWarnings({"rawtypes", "unchecked"})
    private static void require(Schema<?> schema) {
        // The parts of an edit (allOf) are checked one by one when it is applied; several may be
        // left out.
        if (schema.getProperties() == null) {
            return;
        }
        List<String> required = new ArrayList<>();
        for (Map.Entry<String, Schema> property :
                ((Map<String, Schema>) (Map) schema.getProperties()).entrySet()) {
            Map<String, Object> marks = property.getValue().getExtensions();
            if (marks == null || marks.remove(MAY_BE_MISSING) == null) {
                required.add(property.getKey());
            }
        }
        schema.setRequired(required);
    }
}
