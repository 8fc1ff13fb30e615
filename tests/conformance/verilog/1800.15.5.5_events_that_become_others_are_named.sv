// IEEE 1800-2017 clause 15.5.5: an event is given to another
module t;
  event a, b;
  initial begin
    a = b; //! not-yet
  end
endmodule
