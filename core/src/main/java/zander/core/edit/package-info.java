/** Text as it is edited, and what must survive the editing. */
package zander.core.edit;
