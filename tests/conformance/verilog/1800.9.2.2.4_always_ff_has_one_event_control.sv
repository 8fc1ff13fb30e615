// IEEE 1800-2017 clause 9.2.2.4: and no other waits
module t;
  logic q, c;
  always_ff @(posedge c) begin
    #1 q <= 1; //! ff-waits
  end
endmodule
