package zander.core.connect.command;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ServerToolsTest {
  @ParameterizedTest
  @CsvSource({
    "tar (GNU tar) 1.29, true",
    "tar (GNU tar) 1.34, true",
    "tar (GNU tar) 2.0, true",
    "tar (GNU tar) 1.28, false",
    "tar (GNU tar) 1.15.1, false",
    "tar (GNU tar), false",
    "'', false"
  })
  void readsAVersion(String said, boolean late) {
    assertThat(ServerTools.isFrom(said, 1, 29)).isEqualTo(late);
  }
}
