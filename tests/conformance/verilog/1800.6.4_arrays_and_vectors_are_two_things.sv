// IEEE 1800-2017 clause 6.4: a vector is one number, an array is many
module t;
  logic [7:0] v = 8'hA5;
  logic a [7:0];
  initial begin
    foreach (a[i]) a[i] = v[i];
    $display("%h %b%b%b%b", v, a[7], a[6], a[1], a[0]);
    $display("%0d", a + 1); //! whole-array
  end
endmodule
