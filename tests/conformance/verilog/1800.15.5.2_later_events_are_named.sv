// IEEE 1800-2017 clause 15.5.2: an event that comes later in its moment is named
module t;
  event e;
  initial begin
    ->> e; //! not-yet
  end
endmodule
