// IEEE 1800-2017 clause 9.3.4: and none stands where the block has none
module t;
  initial begin : a
    $display("never");
  end : b //! end-name
  initial begin
    $display("never");
  end : c //! end-name
  function automatic int f(int x);
    return x;
  endfunction : g //! end-name
endmodule
