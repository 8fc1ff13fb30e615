// IEEE 1364-2005 clause 3.6: a quote that is not closed
module t;
  initial $display("open); //! open-string
endmodule
