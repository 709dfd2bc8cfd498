/** Finding names and text below a folder, and replacing what was found. */
@NullMarked
package zander.core.find;

import org.jspecify.annotations.NullMarked;
