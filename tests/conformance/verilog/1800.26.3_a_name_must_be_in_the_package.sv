// IEEE 1800-2017 clause 26.3: an import of what is not declared in it
package p;
  localparam A = 1;
endpackage
module t;
  import p::B; //! no-name
endmodule
