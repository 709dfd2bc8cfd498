/** A text as it is in the editor: what is changed in it, found in it, and gone to. */
@NullMarked
package zander.desk.edit;

import org.jspecify.annotations.NullMarked;
