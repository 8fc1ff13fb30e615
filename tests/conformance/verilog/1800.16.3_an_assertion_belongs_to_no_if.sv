// IEEE 1800-2017 clause 16.3: an `else` belongs to the assertion before it, which is the whole branch of an `if`
module t;
  logic a = 0, b = 1;
  initial begin
    if (b) assert (a) else $display("fails");
    if (a) assert (b) else $display("never");
    else $display("otherwise");
    assert (b);
  end
endmodule
//> fails
//> otherwise
