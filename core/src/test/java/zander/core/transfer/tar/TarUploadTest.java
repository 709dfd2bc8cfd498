package zander.core.transfer.tar;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.rights.Mode;

class TarUploadTest {
  /** FAT counts seconds in twos, so an odd time comes back as the one before or after. */
  @ParameterizedTest
  @CsvSource({
    "10, 1700000001, true",
    "10, 1700000000, true",
    "10, 1700000002, true",
    "10, 1700000009, false",
    "9, 1700000001, false",
  })
  void aFileIsWholeByItsSizeAndAboutItsTime(long size, long time, boolean whole) {
    RemoteAttributes is =
        new RemoteAttributes(FileKind.FILE, 10, 1000, 1000, new Mode(0644), 1700000001, 0);
    assertThat(TarUpload.isWhole(is, size, time)).isEqualTo(whole);
    assertThat(TarUpload.isWhole(is, size, -1)).isEqualTo(size == 10);
    assertThat(TarUpload.isWhole(null, size, time)).isFalse();
  }
}
