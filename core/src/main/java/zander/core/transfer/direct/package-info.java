/** Contents from one server straight to another. */
package zander.core.transfer.direct;
