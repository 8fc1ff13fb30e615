// IEEE 1364-2005 clause 12.3.3: and no variable
module t (inout reg p); //! inout-reg
endmodule
