package polymetron.server.api;

import com.fasterxml.jackson.annotation.Nulls;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** How bodies of requests are read, beside what the application's settings say. */
@Configuration
class RequestJson {
    /** No list and no map of the API has holes; whoever reads one need not look for them. */
    @Bean
    JsonMapperBuilderCustomizer refuseHoles() {
        return builder ->
                builder.changeDefaultNullHandling(nulls -> nulls.withContentNulls(Nulls.FAIL));
    }
}
