package zander.core.work;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SecretBytesTest {
  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "x",
        "otter-under-ice",
        "fl\u00fcsse \u6c34 \ud83d\udca7",
        "0123456789abcdef0123456789"
      })
  void areTheLettersInUtf8(String letters) {
    char[] secret = letters.toCharArray();
    assertThat(SecretBytes.bytes(secret)).isEqualTo(letters.getBytes(UTF_8));
    assertThat(secret).isEqualTo(letters.toCharArray());
  }
}
