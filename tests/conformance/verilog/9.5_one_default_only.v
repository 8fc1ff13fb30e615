// IEEE 1364-2005 clause 9.5: a case has at most one
module t;
  reg a;
  initial
    case (a)
      default: a = 0;
      default: a = 1; //! default-twice
    endcase
endmodule
