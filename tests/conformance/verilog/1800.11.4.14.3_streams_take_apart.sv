// IEEE 1800-2017 clause 11.4.14.3: a stream on the left deals the digits out from the left
module t;
  logic [7:0] x = 8'hA5, y, m[4];
  logic [3:0] p, q;
  initial begin
    {>>{p, q}} = x;
    $display("%h %h", p, q);
    {<<4{y}} = x;
    $display("%h", y);
    {>>{m}} = 32'h01020304;
    $display("%h %h", m[0], m[3]);
    {<<8{m}} = 32'h01020304;
    $display("%h %h", m[0], m[3]);
    {>>{p}} = x;
    $display("%h", p);
  end
endmodule
//> a 5
//> 5a
//> 01 04
//> 04 01
//> a
