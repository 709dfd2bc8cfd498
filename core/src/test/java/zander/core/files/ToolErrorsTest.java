package zander.core.files;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.files.RemoteFailure.Reason;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

class ToolErrorsTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "cp: error writing 'x': No space left on device | NO_SPACE",
        "dd: error writing 'x': Disk quota exceeded | QUOTA",
        "rm: cannot remove 'x': Read-only file system | READ_ONLY",
        "cp: cannot open 'x' for reading: Permission denied | PERMISSION_DENIED",
        "chown: changing ownership of 'x': Operation not permitted | PERMISSION_DENIED",
        "tar: x: Cannot stat: No such file or directory | FAILED",
      })
  void readsTheSystemsWords(String said, Reason reason) {
    assertThat(ToolErrors.reason(said)).isEqualTo(reason);
  }

  @ParameterizedTest
  @CsvSource({"gzip: stdout: No space left on device", "tar: x: Wrote only 4096 of 10240 bytes"})
  void keepsTheLineThatNamesTheCause(String cause) {
    String said =
        cause + "\ntar: Child returned status 1\ntar: Error is not recoverable: exiting\n";
    RemoteFailure failure =
        ToolErrors.failure(
            FileStep.PACK, RemotePath.of("/srv/x"), said, FilePhrase.NO_ARCHIVER.of());
    assertThat(failure.said()).isEqualTo(cause);
  }
}
